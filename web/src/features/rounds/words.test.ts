import { describe, expect, it } from "vitest";
import { aRound } from "./testing";
import { ownWords, reasonWords, whyWording } from "./words";

describe("the words", () => {
  it("say a reason without the jargon of its code", () => {
    expect(Object.values(reasonWords).filter((words) => words.includes("-") || words !== words.trim())).toEqual([]);
  });

  it("say what of a parcel is its own as one would say it", () => {
    expect([[], ["words"], ["recipients", "words"], ["recipients", "words", "document"]].map(ownWords)).toEqual([
      "",
      "its own words",
      "its own recipients and words",
      "its own recipients, words and remark on the document",
    ]);
  });

  it("say why a parcel has its wording, by what the round sends", () => {
    const { settings } = aRound([]);
    expect(whyWording("named-in-row", { ...settings, wordingColumn: "Letter" })).toBe("named in the column “Letter”");
    expect(whyWording("of-purpose-in-language", { ...settings, about: "confirmations" })).toBe(
      "the book’s for confirmations of balance in this customer’s language",
    );
    expect(whyWording("first", { ...settings, reminderLevels: [1, 2] })).toBe(
      "the first of the book; none is set for reminders",
    );
  });
});
