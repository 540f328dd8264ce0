import { describe, expect, it } from "vitest";
import { dayForms, momentForms, readDay, readMoment } from "./typedDay";

describe("a day that is typed", () => {
  it.each([
    ["31 Oct 2026", "2026-10-31"],
    [" 31  oct 2026 ", "2026-10-31"],
    ["31 OCTOBER 2026", "2026-10-31"],
    ["1/2/2026", "2026-02-01"],
    ["01/02/2026", "2026-02-01"],
    ["1/02/26", "2026-02-01"],
    ["01.02.2026", "2026-02-01"],
    ["1-2-26", "2026-02-01"],
    ["2026-02-01", "2026-02-01"],
    ["29/2/2028", "2028-02-29"],
    ["10/10/2000", "2000-10-10"],
  ])("%s is %s", (text, iso) => expect(readDay(text)?.format("YYYY-MM-DD")).toBe(iso));

  it.each([
    "",
    "tomorrow",
    "31/02/2026",
    "29/2/2026",
    "10/31/2026",
    "0/1/2026",
    "31 Okt 2026",
    "31 Oct",
    "1/2",
    "2026",
  ])("“%s” is none", (text) => expect(readDay(text)).toBeUndefined());

  it("can be typed as it is shown, and with a time as that is shown", () => {
    for (let n = 0; n < 400; n++) {
      const at = readMoment("28 Feb 2026, 00:05")?.add(n, "day").add(n, "minute");
      for (const form of dayForms) {
        expect(readDay(at?.format(form) ?? "")?.isSame(at, "day")).toBe(true);
      }
      for (const form of momentForms) {
        expect(readMoment(at?.format(form) ?? "")?.isSame(at, "minute")).toBe(true);
      }
    }
  });
});

describe("a moment that is typed", () => {
  it.each([
    ["2 Nov 2026, 07:30", "2026-11-02T07:30"],
    ["2 nov 2026 7:05", "2026-11-02T07:05"],
    ["02/11/26 00:00", "2026-11-02T00:00"],
    ["2026-11-02T23:59", "2026-11-02T23:59"],
  ])("%s is %s", (text, iso) => expect(readMoment(text)?.format("YYYY-MM-DDTHH:mm")).toBe(iso));

  it.each(["2 Nov 2026", "7:30", "2 Nov 2026, 24:30", "2 Nov 2026, 7", "tomorrow 7:30"])("“%s” is none", (text) =>
    expect(readMoment(text)).toBeUndefined(),
  );
});
