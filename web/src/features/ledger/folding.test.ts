import { expect, test } from "vitest";
import { column } from "../../testing/column";
import { foldable } from "./folding";
import type { Column, Meaning } from "./meanings";

const columns = (...taken: Meaning[]): Column[] =>
  taken.map((meaning, index) => column(index, `Column ${index}`, meaning));

const view = (taken: Column[], carriesDown: boolean | null = null) => ({
  kind: "ledger" as const,
  carriesDown,
  columns: taken,
});

test("columns kept for slots are folded where there are three or more", () => {
  expect(foldable(view(columns("customer-code", "extra", "extra", "outstanding", "extra")))).toEqual([1, 2, 4]);
  expect(foldable(view(columns("customer-code", "extra", "extra", "outstanding")))).toEqual([]);
});

test("what is asked about stays in view", () => {
  const asked = columns("customer-code", "extra", "extra", "extra", "extra");
  asked[2] = { ...(asked[2] as Column), confidence: "asked" };
  expect(foldable(view(asked))).toEqual([1, 3, 4]);
});

test("nothing is folded where nothing is known, or where customers stand on lines of their own", () => {
  expect(foldable(view(columns("extra", "extra", "extra")))).toEqual([]);
  expect(foldable(view(columns("number", "extra", "extra", "extra"), true))).toEqual([]);
});
