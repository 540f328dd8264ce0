import { Mark, mergeAttributes } from "@tiptap/core";

/** Words that stand only where a condition holds; its name is shown before them. */
export const ConditionMark = Mark.create({
  name: "condition",
  inclusive: false,
  addAttributes: () => ({
    when: {
      default: "",
      parseHTML: (e: HTMLElement) => e.getAttribute("data-when"),
      renderHTML: (a) => ({ "data-when": a["when"] as string }),
    },
  }),
  parseHTML: () => [{ tag: "span[data-when]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", mergeAttributes(HTMLAttributes), 0],
});
