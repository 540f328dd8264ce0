import { describe, expect, it } from "vitest";
import { moved, textBetween, type Draft } from "./useDraft";
import type { Layout, LayoutPart } from "./useLayouts";

const text = (words: string, when: "always" | "overdue" = "always"): LayoutPart => ({
  part: "text",
  text: words,
  when,
});
const keys = [1, 2];
const draft = (parts: LayoutPart[], more: Partial<Layout> = {}): Draft => ({
  layout: { name: "Statement", footer: "", ...more, parts } as Layout,
  keys,
});
const [title, body] = [{ part: "title", text: "" } as LayoutPart, text("Dear")];
const parts = [title, body];

describe("typing on in the same text", () => {
  it("is told by its place", () => {
    const was = draft(parts);
    expect(textBetween(was, { ...was, layout: { ...was.layout, parts: [title, text("Dear all")] } })).toBe("2 text");
    expect(textBetween(was, { ...was, layout: { ...was.layout, name: "Other" } })).toBe("name");
  });

  it("is nothing else: no part moved, no two fields at once; a choice has a place of its own", () => {
    const was = draft(parts);
    const after = (layout: Partial<Layout>) => textBetween(was, { ...was, layout: { ...was.layout, ...layout } });
    expect(after({ parts: [title, text("Dear", "overdue")] })).toBe("2 when");
    expect(after({ parts: [title, text("Dear all", "overdue")] })).toBeUndefined();
    expect(after({ name: "Other", footer: "Foot" })).toBeUndefined();
    expect(textBetween(was, { layout: { ...was.layout, parts: [body, title] }, keys: [2, 1] })).toBeUndefined();
  });
});

describe("moving an entry", () => {
  it("keeps within the list", () => {
    expect(moved([1, 2, 3], 0, 1)).toEqual([2, 1, 3]);
    expect(moved([1, 2, 3], 2, 1)).toEqual([1, 2, 3]);
  });
});
