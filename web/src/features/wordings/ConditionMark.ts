import { Mark, mergeAttributes } from "@tiptap/core";
import { conditionWords, type Condition } from "./conditions";

const attribute = (name: string) => ({
  default: "",
  parseHTML: (e: HTMLElement) => e.getAttribute(name) ?? "",
  renderHTML: (a: Record<string, unknown>, key: string) => (a[key] ? { [name]: a[key] as string } : {}),
});

/**
 * Words that stand only where a condition holds; conditions stand in one another. While they are edited, it is shown before them in
 * words.
 */
export const ConditionMark = Mark.create<{ label: (slot: string) => string }>({
  name: "condition",
  // It stands around every other mark, so that bold words in a passage do not part it.
  priority: 2000,
  inclusive: false,
  excludes: "",
  addOptions: () => ({ label: (slot) => slot }),
  addAttributes: () =>
    Object.fromEntries(
      Object.entries({ when: "data-when", of: "data-of", is: "data-is", with: "data-with" }).map(([key, name]) => {
        const { default: usual, parseHTML, renderHTML } = attribute(name);
        return [key, { default: usual, parseHTML, renderHTML: (a: Record<string, unknown>) => renderHTML(a, key) }];
      }),
    ),
  parseHTML: () => [{ tag: "span[data-when]" }],
  renderHTML: ({ HTMLAttributes }) => ["span", mergeAttributes(HTMLAttributes), 0],
  addMarkView() {
    return ({ mark }) => {
      const dom = document.createElement("span");
      dom.dataset["when"] = mark.attrs["when"] as string;
      dom.dataset["words"] = conditionWords(mark.attrs as Condition, this.options.label);
      return { dom };
    };
  },
});
