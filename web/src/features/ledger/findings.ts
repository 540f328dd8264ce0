import type { Schemas } from "../../shared/api/client";

export type Finding = Schemas["FindingView"];
export type FindingGroup = Schemas["FindingGroupView"];

/** What the kinds of findings are called in lists. */
export const titles: Record<string, string> = {
  "no-customer": "No customer",
  "amount-missing": "No amount",
  "amount-unreadable": "Not an amount",
  "amount-finer-than-unit": "Finer than a penny",
  "sign-unclear": "Sign unclear",
  "debit-and-credit": "Debit and credit both filled",
  "decimal-mark-assumed": "Decimal mark assumed",
  "date-unreadable": "Not a date",
  "date-missing": "No date",
  "date-order-assumed": "Day or month first?",
  "due-date-derived": "Due date worked out",
  "customer-carried-down": "Customer taken from above",
  "currency-unknown": "Not a currency",
  "kind-unknown": "Kind not known",
  "same-row-twice": "The same row twice",
  "code-with-two-names": "One code, two names",
  "address-of-two-customers": "One address, two customers",
  "missing-address": "No address",
  "bad-address": "Address looks wrong",
  "control-total-differs": "Total disagrees",
  "correction-superseded": "Correction overtaken",
  "value-unknown": "Not understood",
  "customer-unknown": "No such customer",
  "head-office-loop": "Head offices in a circle",
};
