import { expect, test } from "vitest";
import { originOf, originWords, whereRight } from "./origins";

test("what was taken from a row is told with the row; a heading of several words stays whole", () => {
  expect(originOf("row 12 due")).toEqual({ kind: "row", row: 12, field: "due" });
  expect(originWords("row 12 days-over")).toBe("Due date, row 12");
  expect(originWords("row 7 extra:Delivery round")).toBe("Delivery round, row 7");
  expect(originWords("card contact")).toBe("Contact, on the card");
});

test("each is put right where it is kept: in the ledger, on the card, with the firm; sums lead to their items", () => {
  expect(["row 3 number", "card address", "slot firm.address", "slot statement.total"].map(whereRight)).toEqual([
    "ledger",
    "card",
    "firm",
    "account",
  ]);
  expect(originOf("nonsense")).toBeUndefined();
  expect(originOf("row 12")).toBeUndefined();
});
