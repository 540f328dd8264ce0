import type { Schemas } from "../../shared/api/client";

export type SlotView = Schemas["SlotView"];

/** The headings under which slots are offered, in their order. */
export const groupWords: Record<SlotView["group"], string> = {
  customer: "The customer",
  statement: "What is owed",
  payment: "How to pay",
  ours: "We, and the round",
  columns: "Columns of your files",
};

/** The label of a slot by its name; of a column its heading, whether the files have it or not. */
export const labelOf = (slots: SlotView[]) => (name: string) =>
  slots.find((s) => s.name === name)?.label ?? name.replace(/^column\./, "");

/** The slots that fit a text, the best fitting first: by the beginning of the label, of a word in it, by what it says. */
export function found(slots: SlotView[], text: string): SlotView[] {
  const asked = text.trim().toLowerCase();
  const rank = ({ label, name, says }: SlotView) => {
    const words = label.toLowerCase();
    return words.startsWith(asked)
      ? 0
      : words.includes(` ${asked}`)
        ? 1
        : words.includes(asked) || name.includes(asked)
          ? 2
          : says.toLowerCase().includes(asked)
            ? 3
            : 4;
  };
  return slots.filter((s) => rank(s) < 4).sort((a, b) => rank(a) - rank(b));
}

/** The slots by group, as the options of a select. */
export const slotOptions = (slots: SlotView[]) =>
  Object.entries(groupWords)
    .map(([group, label]) => ({
      label,
      options: slots
        .filter((s) => s.group === group)
        .map((s) => ({ value: s.name, label: s.label, says: s.says, example: s.example })),
    }))
    .filter((g) => g.options.length > 0);
