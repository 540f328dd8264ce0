import { describe, expect, it } from "vitest";
import { count, day, dayOf, figure, moment, money, month } from "./figure";

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
    expect([month("2026-09-01"), month("2025-12-31"), month("")]).toEqual(["September 2026", "December 2025", ""]);
    expect(count(1, "parcel")).toBe("1 parcel");
    expect(count(1200, "parcel")).toBe("1,200 parcels");
  });
});

describe("a moment", () => {
  it.each([
    ["2026-11-02T23:30:05Z", "Europe/London", "2 Nov 2026, 23:30:05"],
    ["2026-11-02T23:30:05Z", "Europe/Paris", "3 Nov 2026, 00:30:05"],
    ["2026-11-02T08:14:00+00:00", "America/New_York", "2 Nov 2026, 03:14:00"],
    ["2026-01-01T00:10:00Z", "Pacific/Auckland", "1 Jan 2026, 13:10:00"],
    ["2025-12-31T23:10:00Z", "Asia/Kathmandu", "1 Jan 2026, 04:55:00"],
    ["0001-01-01T12:00:00Z", "UTC", "1 Jan 1, 12:00:00"],
  ])("%s in %s is %s", (iso, zone, written) => {
    expect(moment(iso, zone)).toBe(written);
    expect(`${dayOf(iso, zone)}, `).toBe(written.slice(0, -8));
  });
});
