import { expect, test } from "vitest";
import { merged } from "./merged";

test("what each of two changed stands, and of a field that both changed what was entered", () => {
  const before = {
    name: "Inn",
    notes: "old",
    minimum: null as number | null,
    contacts: [{ address: "a@inn.example" }],
  };
  const entered = { ...before, notes: "mine", contacts: [{ address: "b@inn.example" }] };
  const now = { ...before, notes: "theirs", name: "Inn at Kell", minimum: 10 };
  expect(merged(entered, before, now)).toEqual({
    name: "Inn at Kell",
    notes: "mine",
    minimum: 10,
    contacts: [{ address: "b@inn.example" }],
  });
});

test("a field that was empty by another name was not changed", () =>
  expect(merged({ form: undefined as string | null | undefined }, { form: null }, { form: "open-items" })).toEqual({
    form: "open-items",
  }));
