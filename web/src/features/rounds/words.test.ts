import { describe, expect, it } from "vitest";
import { reasonWords } from "./words";

describe("the words", () => {
  it("say a reason without the jargon of its code", () => {
    expect(Object.values(reasonWords).filter((words) => words.includes("-") || words !== words.trim())).toEqual([]);
  });
});
