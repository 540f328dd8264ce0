import type { Schemas } from "../shared/api/client";

/** A column of a ledger as it was taken, plainly by its heading. */
export const column = (index: number, heading: string, meaning: Schemas["ColumnMeaning"]): Schemas["ColumnView"] => ({
  index,
  heading,
  meaning,
  field: "extra",
  reason: "by heading",
  mark: null,
  order: null,
  unsignedCredits: null,
  notation: "",
  confidence: "sure",
  others: [],
  otherFields: [],
  isHidden: false,
});
