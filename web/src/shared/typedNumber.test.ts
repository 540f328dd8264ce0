import { expect, it } from "vitest";
import { readNumber } from "./typedNumber";

it.each([
  ["12.50", "12.50"],
  ["12,50", "12.50"],
  ["8,5", "8.5"],
  ["1,250", "1250"],
  ["1 250", "1250"],
  ["1,250.00", "1250.00"],
  ["1.250,00", "1250.00"],
  ["12,345,678.90", "12345678.90"],
  ["£1,250.5", "1250.5"],
  ["−3,25", "-3.25"],
  ["12,", "12"],
  ["100.015", "100.015"],
  ["", ""],
])("“%s” is %s", (text, number) => expect(readNumber(text)).toBe(number));

it("is the number that was written, with a comma or a full stop, grouped or not", () => {
  for (let n = 0; n < 2_000; n++) {
    const amount = ((n * 7919) % 1_000_000_00) / 100;
    const [whole = "", part = ""] = amount.toFixed(2).split(".");
    const grouped = (mark: string) => whole.replace(/\B(?=(\d{3})+$)/g, mark);
    for (const text of [`${whole}.${part}`, `${whole},${part}`, `${grouped(",")}.${part}`, `${grouped(".")},${part}`]) {
      expect(Number(readNumber(text)), text).toBe(amount);
    }
  }
});
