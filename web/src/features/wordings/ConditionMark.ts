import { Mark, mergeAttributes } from "@tiptap/core";
import { whenWords } from "../../shared/whenWords";

/** Words that stand only where a condition holds. While they are edited, it is shown before them in words. */
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
  addMarkView:
    () =>
    ({ mark }) => {
      const when = mark.attrs["when"] as string;
      const dom = document.createElement("span");
      dom.dataset["when"] = when;
      dom.dataset["words"] = whenWords[when] ?? when;
      return { dom };
    },
});
