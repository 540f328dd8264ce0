/** What a layout or a wording is used for. */
export function purposeWords(purpose: string): string {
  const level = /^reminder-(\d)$/.exec(purpose)?.[1];
  return level ? `reminders of level ${level}` : (words[purpose] ?? purpose);
}

const words: Record<string, string> = {
  statement: "statements",
  reminder: "reminders",
  "invoice-list": "invoice lists",
  confirmation: "confirmations of balance",
};
