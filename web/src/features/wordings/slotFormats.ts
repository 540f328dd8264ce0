/** The attributes of a slot in a text. */
export interface SlotAttributes {
  name: string;
  orElse: string;
  format: string;
  capital: boolean;
}

const words: Record<string, string> = {
  short: "in figures",
  month: "the month alone",
  "month-and-year": "month and year",
  bare: "without currency",
};

/** A way of writing a slot in words; of a table how many columns it has, of a button what stands on it. Empty for the usual way. */
export function formatWords(slot: string, format: string) {
  if (format === "") {
    return "";
  }
  if (slot === "statement.table") {
    const count = columnsOf(format).length;
    return count === 1 ? "1 column" : `${count} columns`;
  }
  return slot === "payment.button" ? `“${format}”` : (words[format] ?? format);
}

/** The fields of the columns of a table, from its setting. */
export const columnsOf = (format: string) => (format === "" ? [] : format.split(",").map(decodeURIComponent));

/** The setting of a table with these columns. */
export const formatOf = (columns: string[]) => columns.map(encodeURIComponent).join(",");
