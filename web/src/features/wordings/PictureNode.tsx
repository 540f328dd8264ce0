import { mergeAttributes, Node } from "@tiptap/core";
import { NodeViewWrapper, ReactNodeViewRenderer, type NodeViewProps } from "@tiptap/react";
import { Input, InputNumber, Popover } from "antd";
import { useBookId } from "../../shared/useBook";
import { served } from "../../shared/served";
import wordingsStyles from "./wordings.module.css";
import styles from "./PictureNode.module.css";

/** A picture of the book in a message, such as the firm’s logo. The message says its number; where it is shown, it is fetched by it. */
export const PictureNode = Node.create({
  name: "picture",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({
    number: {
      default: "",
      parseHTML: (e: HTMLElement) => e.getAttribute("data-picture"),
      renderHTML: (a) => ({ "data-picture": a["number"] as string }),
    },
    says: {
      default: "",
      parseHTML: (e: HTMLElement) => e.getAttribute("alt") ?? "",
      renderHTML: (a) => ({ alt: a["says"] as string }),
    },
    width: {
      default: 160,
      parseHTML: (e: HTMLElement) => Number(e.getAttribute("width")) || 160,
      renderHTML: (a) => ({ width: String(a["width"]) }),
    },
  }),
  parseHTML: () => [{ tag: "img[data-picture]" }],
  renderHTML: ({ HTMLAttributes }) => ["img", mergeAttributes(HTMLAttributes)],
  addNodeView: () => ReactNodeViewRenderer(Shown, { as: "span" }),
});

function Shown({ node, editor, updateAttributes, deleteNode }: NodeViewProps) {
  const book = useBookId();
  const { number, says, width } = node.attrs as { number: string; says: string; width: number };
  return (
    <NodeViewWrapper as="span" className={wordingsStyles.slotOuter}>
      <Popover
        trigger="click"
        title="Picture"
        content={
          <div className={styles.pictureFields}>
            <label>
              Width in pixels
              <InputNumber
                min={16}
                max={720}
                value={width}
                disabled={!editor.isEditable}
                onChange={(now) => now !== null && updateAttributes({ width: now })}
              />
            </label>
            <label>
              Words where it is not shown
              <Input
                value={says}
                disabled={!editor.isEditable}
                placeholder="nothing: it only adorns"
                onChange={(e) => updateAttributes({ says: e.target.value })}
              />
            </label>
            {editor.isEditable && (
              <button type="button" className="link" onClick={deleteNode}>
                Take this picture out
              </button>
            )}
          </div>
        }
      >
        <button
          type="button"
          contentEditable={false}
          className={wordingsStyles.picture}
          aria-label={`Picture: ${says || "adorns"}`}
        >
          <img src={served(`/api/books/${book}/pictures/${number}`)} alt="" width={width} />
        </button>
      </Popover>
    </NodeViewWrapper>
  );
}
