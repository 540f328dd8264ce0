/** A choice of a word: by which slot, the values with their words, and the word for all others. */
export interface Choice {
  by: string;
  words: [string, string][];
  orElse: string;
}

/** The values and words of a choice as they are stored; none where they cannot be read. */
export function readWords(json: string): [string, string][] {
  try {
    const read = JSON.parse(json) as unknown;
    return Array.isArray(read)
      ? read.filter(
          (pair): pair is [string, string] =>
            Array.isArray(pair) && pair.length === 2 && pair.every((text) => typeof text === "string"),
        )
      : [];
  } catch {
    return [];
  }
}

/** The words of a choice side by side: his / her / their. */
export const choiceLabel = ({ words, orElse }: Choice) =>
  [...words.map(([, word]) => word), orElse].map((word) => word || "–").join(" / ");

/** What people choose a word by most, ready to be changed. */
export const usualChoices: { label: string; choice: Choice }[] = [
  {
    label: "his / her / their, by the title",
    choice: {
      by: "customer.title",
      words: [
        ["Mr", "his"],
        ["Ms", "her"],
      ],
      orElse: "their",
    },
  },
  {
    label: "invoice / invoices, by the number of open invoices",
    choice: { by: "statement.invoices", words: [["1", "invoice"]], orElse: "invoices" },
  },
];
