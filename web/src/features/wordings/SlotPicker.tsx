import type { Editor } from "@tiptap/react";
import { Select } from "antd";
import { slotOptions, type SlotView } from "./slotOptions";
import wordingsStyles from "./wordings.module.css";

/** Puts a slot where one writes, from a list by group that can be searched, each with what it holds of the customer in view. */
export function SlotPicker({ editor, label, slots }: { editor: Editor; label: string; slots: SlotView[] }) {
  return (
    <Select
      className="width-116"
      size="small"
      aria-label={`Put a slot into the ${label.toLowerCase()}`}
      placeholder="Insert slot"
      value={null}
      popupMatchSelectWidth={320}
      listHeight={380}
      showSearch={{ optionFilterProp: "label" }}
      options={slotOptions(slots)}
      optionRender={({ label: name, data }) => (
        <span title={(data as { says?: string }).says}>
          {name} <Example {...(data as { says?: string; example?: string })} />
        </span>
      )}
      onChange={(name: string | null) =>
        name && editor.chain().focus().insertContent({ type: "slot", attrs: { name } }).run()
      }
    />
  );
}

/** What a slot holds of the customer in view, else what it is filled with. */
export function Example({ says, example }: { says?: string; example?: string }) {
  return example ? (
    <small className={wordingsStyles.slotExample}>{example}</small>
  ) : (
    <small className="quiet">{says}</small>
  );
}
