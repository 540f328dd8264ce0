// @vitest-environment jsdom
import { expect, test } from "vitest";
import { choiceLabel, readWords } from "./choiceWords";
import { columnInstead, uses } from "./columnInstead";
import { cutSubject, firstWords, kilobytes, readerPage } from "./readerPage";
import { columnsOf, formatOf, formatWords } from "./slotFormats";
import { found, slotOptions, type SlotView } from "./slotOptions";

const slot = (name: string, label: string, group: SlotView["group"] = "statement", says = ""): SlotView => ({
  name,
  label,
  says,
  group,
  isHtml: false,
  isOfMessage: false,
  example: "",
  formats: [],
});

test("a column that is gone gives way to another in slots, choices and conditions alike", () => {
  const html =
    '<p><span data-slot="column.Round"></span><span data-choice="column.Round" data-words="[[&quot;1&quot;,&quot;a&quot;]]"></span>' +
    '<span data-when="slot" data-of="column.Round" data-is="is" data-with="Round">Round</span><span data-slot="column.Rounds"></span></p>';
  expect(uses(html, "Round")).toBe(true);
  const put = columnInstead(html, "Round", "Delivery round");
  expect(uses(put, "Round")).toBe(false);
  expect(put.match(/column\.Delivery round/g)).toHaveLength(3);
  expect(put).toContain('data-with="Round">Round</span><span data-slot="column.Rounds">');
});

test("words of a choice are read where they are pairs of texts, and shown side by side", () => {
  expect(readWords('[["Mr","his"],["Ms","her"]]')).toEqual([
    ["Mr", "his"],
    ["Ms", "her"],
  ]);
  expect([readWords("{}"), readWords("no"), readWords('[["a"],[1,2]]')]).toEqual([[], [], []]);
  expect(choiceLabel({ by: "x", words: [["1", ""]], orElse: "s" })).toBe("– / s");
});

test("columns of a table come back whatever stands in their names", () => {
  const columns = ["number", 'extra:Round, "N" % 7', "open"];
  expect(columnsOf(formatOf(columns))).toEqual(columns);
  expect(columnsOf("")).toEqual([]);
  expect(formatWords("statement.table", formatOf(columns))).toBe("3 columns");
  expect(formatWords("statement.date", "short")).toBe("in figures");
});

test("slots are found by their labels first, then by what they say", () => {
  const slots = [
    slot("statement.total", "Total open", "statement", "What is owed."),
    slot("column.Owed since", "Owed since", "columns"),
    slot("statement.they-owe", "They owe us"),
    slot("statement.date", "Statement date"),
  ];
  expect(found(slots, "ow").map((s) => s.label)).toEqual(["Owed since", "They owe us", "Total open"]);
  expect(found(slots, "zz")).toEqual([]);
  expect(slotOptions(slots).map((g) => g.label)).toEqual(["What is owed", "Columns of your files"]);
});

test("a message is looked at on a dark ground, and without its pictures", () => {
  const page =
    '<!doctype html><html lang="en"><style>@media (prefers-color-scheme:dark){a{}}</style><img alt="Logo" src="data:x" width="10"></html>';
  expect(readerPage(page, { isDark: true, hasPictures: true })).toContain("@media all{a{}}");
  expect(readerPage(page, { isDark: false, hasPictures: true })).toContain("@media not all{a{}}");
  const without = readerPage(page, { isDark: false, hasPictures: false });
  expect(without).toContain('<img alt="Logo" width="10">');
});

test("a list of messages shows the beginning of a subject and of the words", () => {
  expect(cutSubject("Tarnbrook Linen Hire: statement")).toBe("Tarnbrook Linen Hire: statement");
  expect(cutSubject(`${"a".repeat(44)} ${"b".repeat(40)}`)).toBe(`${"a".repeat(44)}…`);
  expect(firstWords("Dear Ms Caldera,\n\nPlease")).toBe("Dear Ms Caldera, Please");
  expect([kilobytes(34_280), kilobytes(340_000)]).toEqual(["34.3 kB", "340 kB"]);
});
