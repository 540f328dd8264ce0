import { Extension } from "@tiptap/core";
import { PluginKey } from "@tiptap/pm/state";
import { ReactRenderer } from "@tiptap/react";
import Suggestion, { type SuggestionKeyDownProps, type SuggestionProps } from "@tiptap/suggestion";
import { useEffect, useImperativeHandle, useRef, useState, type Ref } from "react";
import { Example } from "./SlotPicker";
import { found, groupWords, type SlotView } from "./slotOptions";
import styles from "./SlashMenu.module.css";

interface Keys {
  onKeyDown: (event: KeyboardEvent) => boolean;
}

/** Offers the slots where a person types a stroke, and those that fit what is typed after it. */
export const SlashMenu = Extension.create<{ slots: SlotView[] }>({
  name: "slashMenu",
  addOptions: () => ({ slots: [] }),
  addProseMirrorPlugins() {
    const { slots } = this.options;
    return [
      Suggestion<SlotView, SlotView>({
        editor: this.editor,
        pluginKey: new PluginKey("slashMenu"),
        char: "/",
        allowSpaces: true,
        items: ({ query }) => (query.trim() ? found(slots, query) : slots),
        command: ({ editor, range, props }) =>
          editor
            .chain()
            .focus()
            .insertContentAt(range, { type: "slot", attrs: { name: props.name } })
            .run(),
        render: () => {
          let shown: ReactRenderer<Keys, Offered> | undefined;
          return {
            onStart: (props) => {
              shown = new ReactRenderer(Offers, { editor: props.editor, props: offered(props) });
              document.body.append(shown.element);
            },
            onUpdate: (props) => shown?.updateProps(offered(props)),
            onKeyDown: ({ event }: SuggestionKeyDownProps) => shown?.ref?.onKeyDown(event) ?? false,
            onExit: () => {
              shown?.element.remove();
              shown?.destroy();
              shown = undefined;
            },
          };
        },
      }),
    ];
  },
});

interface Offered {
  items: SlotView[];
  at: DOMRect | null;
  onPick: (slot: SlotView) => void;
}

const offered = ({ items, clientRect, command }: SuggestionProps<SlotView, SlotView>): Offered => ({
  items,
  at: clientRect?.() ?? null,
  onPick: command,
});

function Offers({ items, at, onPick, ref }: Offered & { ref?: Ref<Keys> }) {
  const [active, setActive] = useState(0);
  const list = useRef<HTMLUListElement>(null);
  const index = Math.min(active, items.length - 1);
  useEffect(() => {
    list.current?.querySelector("[aria-selected=true]")?.scrollIntoView({ block: "nearest" });
  }, [index]);
  useImperativeHandle(ref, () => ({
    onKeyDown: ({ key }) => {
      const picked = items[index];
      if (key === "ArrowDown" || key === "ArrowUp") {
        setActive((index + (key === "ArrowDown" ? 1 : items.length - 1)) % Math.max(1, items.length));
      } else if ((key === "Enter" || key === "Tab") && picked) {
        onPick(picked);
      } else {
        return false;
      }
      return true;
    },
  }));
  if (items.length === 0 || !at) {
    return null;
  }
  // Under the line where there is room, else over it.
  const isLow = at.bottom + 300 > innerHeight;
  return (
    <div
      className={styles.offers}
      style={{
        left: Math.min(at.left, innerWidth - 340),
        ...(isLow ? { bottom: innerHeight - at.top } : { top: at.bottom }),
      }}
    >
      <p className="visually-hidden" role="status">
        {items[index]?.label}, {index + 1} of {items.length}
      </p>
      <ul ref={list} role="listbox" aria-label="Slots">
        {items.map((slot, i) => (
          <li key={slot.name} role="presentation">
            {items[i - 1]?.group !== slot.group && <span className={styles.group}>{groupWords[slot.group]}</span>}
            <div
              role="option"
              aria-selected={i === index}
              onMouseDown={(e) => {
                e.preventDefault();
                onPick(slot);
              }}
            >
              {slot.label} <Example says={slot.says} example={slot.example} />
            </div>
          </li>
        ))}
      </ul>
    </div>
  );
}
