import { mergeAttributes, Node } from "@tiptap/core";
import { NodeViewWrapper, ReactNodeViewRenderer, type NodeViewProps } from "@tiptap/react";
import { Popover } from "antd";
import { useState } from "react";
import { ChoiceFields } from "./ChoiceFields";
import { choiceLabel, readWords, type Choice } from "./choiceWords";
import { useSlots } from "./slotExamples";
import { labelOf } from "./slotOptions";
import wordingsStyles from "./wordings.module.css";
import styles from "./SlotNode.module.css";

/** A word that is chosen by a value: his, her or their. */
export const ChoiceNode = Node.create({
  name: "choice",
  group: "inline",
  inline: true,
  atom: true,
  draggable: true,
  addAttributes: () => ({
    by: {
      default: "",
      parseHTML: (e: HTMLElement) => e.getAttribute("data-choice"),
      renderHTML: (a) => ({ "data-choice": a["by"] as string }),
    },
    words: {
      default: [],
      parseHTML: (e: HTMLElement) => readWords(e.getAttribute("data-words") ?? ""),
      renderHTML: (a) => ({ "data-words": JSON.stringify(a["words"]) }),
    },
    orElse: {
      default: "",
      parseHTML: (e: HTMLElement) => e.getAttribute("data-or-else") ?? "",
      renderHTML: (a) => ({ "data-or-else": a["orElse"] as string }),
    },
  }),
  parseHTML: () => [{ tag: "span[data-choice]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", mergeAttributes(HTMLAttributes)],
  addNodeView: () => ReactNodeViewRenderer(ChoiceChip, { as: "span" }),
});

function ChoiceChip({ node, editor, updateAttributes, deleteNode }: NodeViewProps) {
  const slots = useSlots().data ?? [];
  const choice = node.attrs as Choice;
  // One that was just put in has nothing to choose by yet.
  const [open, setOpen] = useState(choice.by === "" && editor.isEditable);
  const isKnown = choice.by === "" || slots.length === 0 || slots.some((s) => s.name === choice.by);
  return (
    <NodeViewWrapper as="span" className={wordingsStyles.slotOuter}>
      <Popover
        trigger="click"
        title="A word by a value"
        open={open}
        onOpenChange={setOpen}
        destroyOnHidden
        content={
          <ChoiceFields
            choice={choice}
            slots={slots}
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
          className={isKnown ? styles.slot : `${styles.slot} ${styles.unknown}`}
        >
          {choiceLabel(choice)} <small>by {choice.by ? labelOf(slots)(choice.by) : "…"}</small>
        </button>
      </Popover>
    </NodeViewWrapper>
  );
}
