import type { Schemas } from "../../shared/api/client";

export type Finding = Schemas["FindingView"];
export type FindingGroup = Schemas["FindingGroupView"];

/** What the kinds of findings are called in lists. */
export const titles: Record<string, string> = {
  "no-customer": "No customer",
  "amount-missing": "No amount",
  "amount-unreadable": "Not an amount",
  "amount-finer-than-unit": "Finer than a penny",
  "amount-merged": "Amount merged over rows",
  "cell-error": "Error of a formula",
  "rows-hidden": "Hidden rows",
  "columns-hidden": "Hidden columns",
  "columns-moved": "Columns in another order",
  "column-differs": "Column differs further down",
  "seems-no-ledger": "Seems to be no ledger",
  "due-date-far": "Due date far from others",
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
  "brought-forward-differs": "Movements and open items differ",
  "value-too-long": "Longer than any",
  "value-unknown": "Not understood",
  "customer-unknown": "No such customer",
  "head-office-loop": "Head offices in a circle",
};

const weights: Record<Finding["severity"], number> = { error: 0, warning: 1, note: 2 };

/** The order of the list: most serious first, then by code, then by row; negative where `a` stands before `b`. */
function compare(a: Finding, b: Finding): number {
  return weights[a.severity] - weights[b.severity] || (a.code < b.code ? -1 : a.code > b.code ? 1 : 0) || a.row - b.row;
}

/**
 * The next finding, or the one before, seen from `here`; round again at the ends. Where `here` has been put right and
 * stands in the list no more, it is the next to where it stood: so one goes on, whether or not the list has been
 * made anew meanwhile. Without `here`, the first or the last.
 */
export function stepFrom(findings: Finding[], here: Finding | null, by: 1 | -1): Finding | undefined {
  const end = by > 0 ? findings[0] : findings.at(-1);
  if (here === null) {
    return end;
  }
  const at = findings.findIndex((f) => f.row === here.row && f.code === here.code && f.column === here.column);
  if (at >= 0) {
    return findings[at + by] ?? end;
  }
  return (
    (by > 0 ? findings.find((f) => compare(f, here) >= 0) : findings.findLast((f) => compare(f, here) <= 0)) ?? end
  );
}
