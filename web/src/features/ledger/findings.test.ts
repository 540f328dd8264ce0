import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { stepFrom, titles, type Finding } from "./findings";

function finding(severity: Finding["severity"], code: string, row: number, column: string | null = null): Finding {
  return {
    severity,
    code,
    row,
    column,
    file: "open-items.csv",
    sheet: null,
    customer: null,
    message: "",
    remedy: "",
    other: null,
  };
}

const noAmount = finding("error", "amount-unreadable", 9, "Amount");
const noCustomer = finding("error", "no-customer", 4);
const noAddress = finding("warning", "missing-address", 2, "E-mail");
const all = [noAmount, noCustomer, noAddress];

describe("going from finding to finding", () => {
  it("begins with the most serious, and goes round at the ends", () => {
    expect(stepFrom(all, null, 1)).toBe(noAmount);
    expect(stepFrom(all, null, -1)).toBe(noAddress);
    expect(stepFrom(all, noAddress, 1)).toBe(noAmount);
    expect(stepFrom(all, noAmount, -1)).toBe(noAddress);
  });

  it("goes on from where one that was put right stood, before the list is made anew and after", () => {
    expect(stepFrom(all, noCustomer, 1)).toBe(noAddress);
    expect(stepFrom([noAmount, noAddress], noCustomer, 1)).toBe(noAddress);
    expect(stepFrom([noAmount, noAddress], noCustomer, -1)).toBe(noAmount);
  });

  it("does not pass over another finding of the same kind in the same row", () => {
    const other = finding("error", "amount-unreadable", 9, "Tax");
    expect(stepFrom([other, noCustomer], noAmount, 1)).toBe(other);
  });

  it("has nowhere to go when nothing is left", () => {
    expect(stepFrom([], noAmount, 1)).toBeUndefined();
  });
});

describe("titles", () => {
  it("has words for every finding that is listed", () => {
    const listed = readFileSync("../docs/findings.md", "utf8").matchAll(/^\| `([a-z-]+)` \| (?:error|warning|note)/gm);
    const codes = [...listed].map((m) => m[1]);
    expect(codes.length).toBeGreaterThan(20);
    expect(codes.filter((code) => !((code as string) in titles))).toEqual([]);
  });
});
