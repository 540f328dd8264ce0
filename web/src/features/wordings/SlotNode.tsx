import { mergeAttributes, Node } from "@tiptap/core";
import { NodeViewWrapper, ReactNodeViewRenderer, type NodeViewProps } from "@tiptap/react";
import { Popover } from "antd";
import { useSlots } from "./slotExamples";
import { SlotFields } from "./SlotFields";
import { formatWords, type SlotAttributes } from "./slotFormats";
import wordingsStyles from "./wordings.module.css";
import styles from "./SlotNode.module.css";

/** A place that is filled from the customer's data, shown as a chip with its label; nobody types braces. */
export const SlotNode = Node.create({
  name: "slot",
  group: "inline",
  inline: true,
  atom: true,
  draggable: true,
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
    format: {
      default: "",
      parseHTML: (e: HTMLElement) => e.getAttribute("data-format") ?? "",
      renderHTML: (a) => (a["format"] ? { "data-format": a["format"] as string } : {}),
    },
    capital: {
      default: false,
      parseHTML: (e: HTMLElement) => e.hasAttribute("data-capital"),
      renderHTML: (a) => (a["capital"] ? { "data-capital": "" } : {}),
    },
  }),
  parseHTML: () => [{ tag: "span[data-slot]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", mergeAttributes(HTMLAttributes)],
  addNodeView: () => ReactNodeViewRenderer(SlotChip, { as: "span" }),
});

function SlotChip({ node, editor, updateAttributes, deleteNode }: NodeViewProps) {
  const slots = useSlots();
  const attributes = node.attrs as SlotAttributes;
  const { name, orElse, format } = attributes;
  const slot = slots.data?.find((s) => s.name === name);
  const label = slot?.label ?? name.replace(/^column\./, "");
  const written = formatWords(name, format);
  return (
    <NodeViewWrapper as="span" className={wordingsStyles.slotOuter}>
      <Popover
        trigger="click"
        title={label}
        destroyOnHidden
        content={
          <SlotFields
            slot={slot}
            attributes={attributes}
            isFixed={!editor.isEditable}
            onChange={updateAttributes}
            onRemove={deleteNode}
          />
        }
      >
        <button
          type="button"
          contentEditable={false}
          data-drag-handle
          className={slot || slots.isPending ? styles.slot : `${styles.slot} ${styles.unknown}`}
        >
          {label}
          {written && <small>, {written}</small>}
          {orElse && <small> or else “{orElse}”</small>}
        </button>
      </Popover>
    </NodeViewWrapper>
  );
}
