import { Document } from "@tiptap/extension-document";
import TextAlign from "@tiptap/extension-text-align";
import { Color, FontSize, TextStyle } from "@tiptap/extension-text-style";
import StarterKit from "@tiptap/starter-kit";
import { ChoiceNode } from "./ChoiceNode";
import { ConditionMark } from "./ConditionMark";
import { PictureNode } from "./PictureNode";
import { SlashMenu } from "./SlashMenu";
import { SlotNode } from "./SlotNode";
import { labelOf, type SlotView } from "./slotOptions";

/** Where a text stands: a subject or a message is read on a screen; a line of a layout, as the name of its file, or a text is printed. */
export type TextKind = "subject" | "message" | "line" | "document";

/** The sizes that words of a message can have. */
export const sizes = [
  { label: "small", size: "12px" },
  { label: "as usual", size: "" },
  { label: "large", size: "18px" },
];

/** The colours that words of a message can have; each has a twin for dark grounds, which the message brings along. */
export const colours = [
  { label: "as usual", colour: "" },
  { label: "plum", colour: "#5b2a55" },
  { label: "brick", colour: "#9a3b1f" },
  { label: "moss", colour: "#2f6b3c" },
  { label: "slate", colour: "#5d5766" },
];

/** What of the slots can stand in a text. */
export const fitting = (slots: SlotView[], kind: TextKind) =>
  slots.filter((s) => (kind === "message" ? true : kind === "subject" ? !s.isHtml : !s.isOfMessage));

/** What a text of a kind can have in it. */
export function extensionsOf(kind: TextKind, slots: SlotView[]) {
  const marks = [
    SlotNode,
    ChoiceNode,
    ConditionMark.configure({ label: labelOf(slots) }),
    SlashMenu.configure({ slots: fitting(slots, kind) }),
  ];
  if (kind === "line" || kind === "subject") {
    return [
      // One paragraph of text and slots.
      Document.extend({ content: "paragraph" }),
      StarterKit.configure({
        document: false,
        bold: false,
        italic: false,
        underline: false,
        strike: false,
        code: false,
        link: false,
        bulletList: false,
        orderedList: false,
        listItem: false,
        listKeymap: false,
        heading: false,
        blockquote: false,
        codeBlock: false,
        horizontalRule: false,
        hardBreak: false,
        trailingNode: false,
      }),
      ...marks,
    ];
  }
  const kit = StarterKit.configure({
    codeBlock: false,
    code: false,
    blockquote: false,
    strike: false,
    heading: { levels: [2] },
    link: { openOnClick: false, protocols: ["mailto"] },
  });
  return kind === "document"
    ? [kit, ...marks]
    : [
        kit,
        ...marks,
        PictureNode,
        TextStyle,
        Color,
        FontSize,
        TextAlign.configure({ types: ["heading", "paragraph"], alignments: ["left", "center", "right"] }),
      ];
}
