import { mergeAttributes, Node } from "@tiptap/core";
import { NodeViewWrapper, ReactNodeViewRenderer, type NodeViewProps } from "@tiptap/react";
import { Input, Popover } from "antd";
import { useSlots } from "./slotExamples";
import wordingsStyles from "./wordings.module.css";
import styles from "./SlotNode.module.css";

/** A place that is filled from the customer's data, shown as a chip with its label; nobody types braces. */
export const SlotNode = Node.create({
  name: "slot",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({
    name: {
      default: "",
      parseHTML: (e: HTMLElement) => e.getAttribute("data-slot"),
      renderHTML: (a) => ({ "data-slot": a["name"] as string }),
    },
    orElse: {
      default: "",
      parseHTML: (e: HTMLElement) => e.getAttribute("data-or-else") ?? "",
      renderHTML: (a) => (a["orElse"] ? { "data-or-else": a["orElse"] as string } : {}),
    },
  }),
  parseHTML: () => [{ tag: "span[data-slot]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", mergeAttributes(HTMLAttributes)],
  addNodeView: () => ReactNodeViewRenderer(SlotChip, { as: "span" }),
});

function SlotChip({ node, editor, updateAttributes, deleteNode }: NodeViewProps) {
  const slots = useSlots();
  const name = node.attrs["name"] as string;
  const orElse = node.attrs["orElse"] as string;
  const slot = slots.data?.find((s) => s.name === name);
  const label = slot?.label ?? name;
  return (
    <NodeViewWrapper as="span" className={wordingsStyles.slotOuter}>
      <Popover
        trigger="click"
        title={label}
        content={
          <div className="width-240">
            <p className="above-0">{slot?.says ?? "This slot names nothing known."}</p>
            {slot?.example && <p className={wordingsStyles.slotExample}>{slot.example}</p>}
            {!slot?.isHtml && (
              <label>
                Or else, where it is empty
                <Input
                  value={orElse}
                  disabled={!editor.isEditable}
                  placeholder="nothing: the parcel waits for you"
                  onChange={(e) => updateAttributes({ orElse: e.target.value })}
                />
              </label>
            )}
            {editor.isEditable && (
              <button type="button" className="link above-8" onClick={deleteNode}>
                Remove slot
              </button>
            )}
          </div>
        }
      >
        <button
          type="button"
          contentEditable={false}
          className={slot || slots.isPending ? styles.slot : `${styles.slot} ${styles.unknown}`}
        >
          {label}
          {orElse && <small> or else “{orElse}”</small>}
        </button>
      </Popover>
    </NodeViewWrapper>
  );
}
