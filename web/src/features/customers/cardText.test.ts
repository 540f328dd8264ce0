import { expect, test } from "vitest";
import { requestOf, textOf, type Card } from "./cardText";
import { anchor } from "./testing";

/** A card on which everything says something. */
const card: Card = {
  ...anchor,
  delivery: "both",
  country: "IE",
  language: "fr",
  terms: { days: 14, fromMonthEnd: true },
  headOffice: "HO01",
  groups: "both",
  form: "brought-forward",
  minimumBalance: "25.50",
  onHold: true,
  ownWording: 3,
  ownLayout: 5,
  notes: "rings first",
  extra: { Round: "7" },
};

test("a card whose fields were not touched is stored as it was", () => {
  const stored = requestOf(textOf(card), 4);
  expect(card).toMatchObject({ ...stored, minimumBalance: "25.50" });
  expect(stored.minimumBalance).toBe(25.5);
});

test("a card without contacts has an empty one to be filled in, without terms no days, and without a sum no sum", () => {
  const text = textOf({ ...card, contacts: [], terms: null, minimumBalance: null });
  expect(text.contacts).toEqual([{ name: "", title: "", address: "", role: "to", rounds: [] }]);
  expect(requestOf(text, 4)).toMatchObject({ terms: null, minimumBalance: null });
});

test("what a person cleared is cleared", () => {
  const cleared = { ...textOf(card), form: undefined as unknown as null, ownWording: null, days: null, postal: "" };
  expect(requestOf(cleared, 4)).toMatchObject({ form: null, ownWording: null, terms: null, postalLines: [] });
});
