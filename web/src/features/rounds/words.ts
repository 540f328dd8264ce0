import type { Schemas } from "../../shared/api/client";
import { purposeWords } from "../../shared/purposes";
import type { RoundSettings } from "./useRound";

/** The reasons for leaving out, as people say them. */
export const reasonWords: Record<string, string> = {
  "after-the-date": "dated after the date",
  "outside-the-dates": "outside the chosen dates",
  "held-back": "in dispute or held back",
  "other-unit": "other unit or column",
  "credits-not-wanted": "credits not wanted",
  "taken-out": "item taken out by hand",
  error: "blocked by an error",
  "removed-by-hand": "taken out by hand",
  "not-chosen": "not among the chosen",
  "on-hold": "customer on hold",
  "nothing-open": "nothing open",
  "credit-balance": "credit balance",
  "below-the-minimum": "below the least balance",
  "not-overdue-enough": "not overdue enough",
  "no-reminder-due": "no reminder is due",
  "written-to-recently": "written to recently",
  "no-way-to-reach": "no address",
};

/** Headings of the groups in the list of parcels. */
export const groupWords: Record<string, string> = {
  "needs-you": "Need you",
  unsure: "Unsure: did they go?",
  refused: "Refused",
  returned: "Returned",
  "to-be-retried": "To be retried",
  exported: "Exported",
  printed: "Printed",
  prepared: "Ready",
  held: "Held",
  sending: "Sending",
  released: "Released, waiting their turn",
  sent: "Sent",
  "left-out": "Left out",
};

/** What of one parcel somebody changed on it alone. */
const alteredWords: Record<string, string> = {
  recipients: "recipients",
  words: "words",
  document: "remark on the document",
  enclosures: "enclosures",
};

/** What of a parcel is its own: "its own recipients, words and remark on the document"; empty for nothing. */
export function ownWords(altered: string[]): string {
  const parts = altered.map((a) => alteredWords[a] ?? a);
  const last = parts.pop();
  return last === undefined ? "" : `its own ${parts.length > 0 ? `${parts.join(", ")} and ${last}` : last}`;
}

/** Why a payment was set against an item. */
export const settledWords: Record<string, string> = {
  hand: "set by hand",
  reference: "it names the document",
  age: "the oldest was open",
};

/** Reasons that a person may overrule by putting the customer in. */
export const canBePutIn = [
  "not-chosen",
  "below-the-minimum",
  "not-overdue-enough",
  "no-reminder-due",
  "written-to-recently",
];

/** What a statement lists. */
export const formWords: Record<string, string> = {
  "open-items": "open items",
  "brought-forward": "brought forward",
};

/** Who of a head office and its branches gets the statements. */
export const groupsWords: Record<string, string> = {
  branches: "each branch its own",
  "head-office": "the head office, for all",
  both: "the head office and each branch",
};

/** Periods, seen from today. */
export const periodWords: Record<string, string> = {
  "last-month": "last month",
  "last-quarter": "last quarter",
  "this-month": "this month",
  "this-quarter": "this quarter",
};

/** How long something still takes: "about 40 s", "about 12 min", "about 3 h". */
export function stillTakes(seconds: number): string {
  if (seconds < 90) {
    return `about ${Math.ceil(seconds)} s`;
  }
  return seconds < 5400 ? `about ${Math.ceil(seconds / 60)} min` : `about ${Math.ceil(seconds / 3600)} h`;
}

/** What a round that is made from the ledger can be about. */
export type Kind = "statements" | "reminders" | "confirmations" | "invoices";

export const kindWords: Record<Kind, string> = {
  statements: "Statements",
  reminders: "Reminders",
  confirmations: "Confirmations",
  invoices: "Invoice lists",
};

export const kinds = Object.entries(kindWords).map(([value, label]) => ({ value: value as Kind, label }));

/** What a round sends, by the purposes that wordings are set for. */
const goesWords: Record<RoundSettings["about"], string> = {
  statements: purposeWords("statement"),
  reminders: purposeWords("reminder"),
  invoices: purposeWords("invoice-list"),
  confirmations: purposeWords("confirmation"),
  notices: "notices",
};

type WordingReason = NonNullable<Schemas["ParcelView"]["wordingReason"]>;

/** Why a parcel has its wording: "the one on this customer’s card". */
export function whyWording(reason: WordingReason, settings: RoundSettings): string {
  const goes = settings.reminderLevels === null ? goesWords[settings.about] : purposeWords("reminder");
  const why: Record<WordingReason, string> = {
    "named-in-row": `named in the column “${settings.wordingColumn}”`,
    picked: "picked for this round",
    "on-card": "the one on this customer’s card",
    "of-level": "the one of its reminder level",
    "of-purpose-in-language": `the book’s for ${goes} in this customer’s language`,
    "of-purpose": `the book’s for ${goes}`,
    first: `the first of the book; none is set for ${goes}`,
  };
  return why[reason];
}
