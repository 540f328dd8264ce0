import { describe, expect, it } from "vitest";
import { ownWords, reasonWords } from "./words";

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
});
