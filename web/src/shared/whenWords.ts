/** When words stand in a message or on a document. */
export const whenWords: Record<string, string> = {
  always: "always",
  overdue: "where something is past due",
  "not-overdue": "where nothing is past due",
  reminder: "on reminders",
  "no-reminder": "on statements that are no reminder",
  "one-item": "where one item stands on it",
  "several-items": "where several items stand on it",
  "they-owe": "where they owe us",
  "we-owe": "where we owe them",
  balanced: "where nobody owes anything",
  credits: "where credits are not set against invoices",
  interest: "where it shows interest",
  group: "where it is for several accounts",
  copies: "where copies are enclosed",
  "no-copies": "where no copies are enclosed",
};
