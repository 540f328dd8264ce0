import { describe, expect, it } from "vitest";
import { count, day, figure, money } from "./figure";

describe("figure", () => {
  it.each([
    ["0.00", "0.00"],
    ["999.99", "999.99"],
    ["1240.00", "1,240.00"],
    ["-1234567.50", "\u22121,234,567.50"],
    ["1234567", "1,234,567"],
    ["123456789012345.67", "123,456,789,012,345.67"],
  ])("writes %s as %s", (amount, written) => {
    expect(figure(amount)).toBe(written);
  });
});

describe("money", () => {
  it("puts the sign behind the minus", () => {
    expect(money("-60.00", "GBP")).toBe("\u2212£60.00");
    expect(money("5.00", "CHF")).toBe("CHF\u00a05.00");
  });
});

describe("day and count", () => {
  it("write as the trade does", () => {
    expect(day("2026-10-31")).toBe("31 Oct 2026");
    expect(day("2026-09-01")).toBe("1 Sep 2026");
    expect(count(1, "parcel")).toBe("1 parcel");
    expect(count(1200, "parcel")).toBe("1,200 parcels");
  });
});
