import type { Layout, LayoutPart, PartName } from "./useLayouts";

/** What the parts are called, in the order in which they are offered. */
export const partWords: Record<PartName, string> = {
  letterhead: "Letterhead",
  address: "Address",
  references: "Date and account",
  title: "Title",
  text: "Text",
  items: "Table of items",
  total: "Total",
  ages: "Strip of ages",
  payment: "How to pay",
  signature: "Signature",
  slip: "Slip to tear off",
};

/** A part as it is when it is added. */
export const newPart: Record<PartName, LayoutPart> = {
  letterhead: { part: "letterhead", logo: null, logoHeight: 15, withName: false, withLines: true },
  address: { part: "address", place: "free", left: 18, top: 46, withReturnLine: false },
  references: { part: "references" },
  title: { part: "title", text: "" },
  text: { part: "text", text: "<p></p>", when: "always" },
  items: { part: "items", columns: [], groupBy: "", carryForward: false },
  total: { part: "total" },
  ages: { part: "ages" },
  payment: { part: "payment", iban: "", bic: "", link: "", barCode: "none", barCodeText: "" },
  signature: { part: "signature", picture: null, height: 15 },
  slip: { part: "slip", text: "<p></p>" },
};

/** Kinds of bar codes. */
export const barCodeWords: Record<string, string> = {
  none: "none",
  code128: "Code 128",
  code39: "Code 39",
};

/** The forms in which a document is enclosed. */
export const formWords: { value: Layout["forms"][number]; label: string }[] = [
  { value: "pdf", label: "PDF" },
  { value: "docx", label: "DOCX" },
  { value: "xlsx", label: "workbook (XLSX)" },
  { value: "csv", label: "CSV" },
];

/** The faces of a document. */
export const facesWords: Record<string, string> = {
  mixed: "sans, headings with serifs",
  sans: "sans",
  serif: "with serifs",
};

/** Where the address stands. */
export const placeWords: Record<string, string> = {
  free: "at a place of its own",
  "din5008-a": "window of DIN 5008, form A",
  "din5008-b": "window of DIN 5008, form B",
};
