import type { Schemas } from "../../shared/api/client";

export type Column = Schemas["ColumnView"];
export type Meaning = Column["meaning"];
export type Field = Column["field"];

/** What a column of a ledger can be. */
export const meanings: { value: Meaning; label: string }[] = [
  { value: "customer-code", label: "Customer code" },
  { value: "customer-name", label: "Customer name" },
  { value: "kind", label: "Kind" },
  { value: "number", label: "Number" },
  { value: "date", label: "Document date" },
  { value: "due-date", label: "Due date" },
  { value: "currency", label: "Currency" },
  { value: "amount", label: "Amount" },
  { value: "outstanding", label: "Outstanding" },
  { value: "debit", label: "Debit" },
  { value: "credit", label: "Credit" },
  { value: "email", label: "E-mail" },
  { value: "reference", label: "Settles number" },
  { value: "unit", label: "Business unit" },
  { value: "held", label: "Dispute, held" },
  { value: "extra", label: "Kept for slots" },
];

/** What a column of a customer list can be. */
export const fields: { value: Field; label: string }[] = [
  { value: "code", label: "Customer code" },
  { value: "name", label: "Customer name" },
  { value: "contact", label: "Contact" },
  { value: "title", label: "Title" },
  { value: "salutation", label: "Salutation" },
  { value: "email", label: "E-mail" },
  { value: "copy-email", label: "E-mail, copy" },
  { value: "blind-copy-email", label: "E-mail, blind copy" },
  { value: "address", label: "Address line" },
  { value: "town", label: "Town" },
  { value: "postcode", label: "Postcode" },
  { value: "country", label: "Country" },
  { value: "delivery", label: "How they get it" },
  { value: "language", label: "Language" },
  { value: "terms", label: "Terms" },
  { value: "head-office", label: "Head office" },
  { value: "unit", label: "Business unit" },
  { value: "minimum-balance", label: "Minimum balance" },
  { value: "hold", label: "On hold" },
  { value: "notes", label: "Notes" },
  { value: "extra", label: "Kept on the card" },
];

/** What a row can be about. */
export const kinds: { value: Schemas["ItemKind"]; label: string }[] = [
  { value: "invoice", label: "an invoice" },
  { value: "credit-note", label: "a credit note" },
  { value: "payment", label: "a payment" },
  { value: "adjustment", label: "an adjustment" },
  { value: "opening-balance", label: "an opening balance" },
];
