/**
 * Reads a number as people type it, into one with a full stop: "12.50" and "12,50" are both 12.50; "1,250" and "1 250" are
 * 1250, "1,250.00" and "1.250,00" are 1250.00. A single comma before one or two digits marks the decimals; before three it
 * groups, as it does in English. A full stop alone always marks the decimals. Signs of currencies are passed over.
 */
export function readNumber(text = ""): string {
  const plain = text.replace(/\u2212/g, "-").replace(/[^\d.,-]/g, "");
  const isCommaLast = plain.lastIndexOf(",") > plain.lastIndexOf(".");
  const hasBoth = plain.includes(",") && plain.includes(".");
  const isDecimalComma = isCommaLast && (hasBoth || /^-?\d*,\d{1,2}$/.test(plain));
  return isDecimalComma ? plain.replace(/\./g, "").replace(",", ".") : plain.replace(/,/g, "");
}
