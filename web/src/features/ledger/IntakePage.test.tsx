// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, test } from "vitest";
import type { Schemas } from "../../shared/api/client";
import { book } from "../../testing/book";
import { column as columnOf } from "../../testing/column";
import { mount } from "../../testing/mount";
import { serve } from "../../testing/server";
import { IntakePage } from "./IntakePage";

type View = Schemas["IntakeView"];
type Reading = Schemas["ReadingRequest"];

const at = "/api/books/1/intakes/4";
const headings = ["Acct", "Posted", "Rest"];

const column = (index: number, meaning: Schemas["ColumnMeaning"]) => columnOf(index, headings[index] ?? "", meaning);

const ledger: View = {
  id: 4,
  kind: "ledger",
  file: "ledger.csv",
  state: "looked-at",
  opening: {
    sheets: [],
    sheet: null,
    sheetReason: "",
    delimiter: ",",
    delimiterReason: "",
    encoding: "UTF-8",
    encodingReason: "",
  },
  headingRow: 1,
  carriesDown: false,
  carryReason: "",
  kinds: {},
  totals: {},
  columns: [column(0, "customer-code"), column(1, "extra"), column(2, "outstanding")],
  lacks: [],
  question: null,
  seemsToBe: null,
  leavesOutHidden: false,
  leavesOutHiddenColumns: false,
  lastRow: 2,
  rowsRead: 1,
  rowsKept: 1,
  rowsSetAside: 0,
  rowsLeftOut: 0,
  totalLines: 0,
  customers: 1,
  newCustomers: 0,
  sums: [{ currency: "GBP", amount: "40.00" }],
  setAsideSums: [],
  leftOutSums: [],
  ledgerSums: [{ currency: "GBP", amount: "40.00" }],
  checks: [],
  errors: 0,
  warnings: 0,
  findings: [],
  doubts: [],
};

const rows: Schemas["FileRowsView"] = {
  lastRow: 2,
  rows: [
    { number: 1, role: "heading", cells: headings, values: {}, corrected: {}, leftOut: null },
    { number: 2, role: "item", cells: ["AN01", "2026-10-01", "40.00"], values: {}, corrected: {}, leftOut: null },
  ],
};

/** A server on which a file is looked at; it takes columns for what it is told. */
function withFile(view: Partial<View> = {}) {
  let reading: Reading = {};
  const sent = serve({
    "GET /api/books/1": () => book,
    "GET /api/books/1/ledger": () => new Response(null, { status: 204 }),
    [`GET ${at}`]: () => ({ ...ledger, ...view }),
    [`GET ${at}/rows`]: () => rows,
    [`GET ${at}/reading`]: () => reading,
    [`PUT ${at}/reading`]: async ({ body }) => {
      await new Promise((resolve) => setTimeout(resolve, 20));
      reading = body as Reading;
      return {};
    },
    [`POST ${at}/keep`]: () => ({ rows: 1, customers: 1 }),
    [`POST ${at}/again`]: () => ({ id: 5, knownReading: false }),
  });
  const kept = () => sent.filter((s) => s.path === `${at}/keep`);
  return { sent, kept, reading: () => reading };
}

const open = async () => {
  mount(<IntakePage />, "/books/:book/ledger/:intake", "/books/1/ledger/4");
  await screen.findByRole("gridcell", { name: "AN01" });
  return userEvent.setup();
};

/** Picks what a column is. */
const take = async (heading: string, meaning: string) => {
  fireEvent.mouseDown(screen.getByRole("combobox", { name: `What “${heading}” is` }));
  fireEvent.click((await screen.findAllByText(meaning)).at(-1) as HTMLElement);
};

test("two columns that are set one right after the other are both taken as they were set", async () => {
  const { reading, sent } = withFile();
  await open();
  await take("Posted", "Document date");
  await take("Rest", "Amount");
  await waitFor(() => expect(sent.filter((s) => s.method === "PUT")).toHaveLength(2));
  await waitFor(() => expect(reading().meanings).toEqual({ 1: "date", 2: "amount" }));
});

test("a file that lacks a column says what it lacks and cannot be kept, by key neither", async () => {
  const { kept } = withFile({ lacks: ["No column says how much is outstanding."] });
  const user = await open();
  expect(screen.getByText("No column says how much is outstanding.")).toBeDefined();
  expect(screen.getByRole("button", { name: /^Keep/ })).toHaveProperty("disabled", true);
  await user.keyboard("k");
  expect(kept()).toEqual([]);
});

test("where two columns could be the amount it is asked, with the sum of each, and one click settles it", async () => {
  const { reading } = withFile({
    lacks: ["No column has a date.", "“Posted” and “Rest” could both be the outstanding amount: say which one is."],
    question: {
      meaning: "outstanding",
      says: "“Posted” and “Rest” could both be the outstanding amount: say which one is.",
      choices: [
        { column: 2, heading: "Rest", sum: "40.00" },
        { column: 1, heading: "Posted", sum: "51.50" },
      ],
      rows: 1,
    },
  });
  const user = await open();
  expect(screen.getByText("Which column is the outstanding amount?")).toBeDefined();
  // What else it lacks is said as well, and the question once.
  expect(screen.getByText("No column has a date.")).toBeDefined();
  expect(screen.queryByText(/could both be/)).toBeNull();
  expect(screen.getByRole("button", { name: /^Rest: 40.00/ })).toBeDefined();
  await user.click(screen.getByRole("button", { name: /^Posted: 51.50/ }));
  await waitFor(() => expect(reading().meanings).toEqual({ 1: "outstanding", 2: "extra" }));
});

test("what a column likely is says so, and what else it could be is one click away", async () => {
  const { reading } = withFile({
    columns: [
      column(0, "customer-code"),
      { ...column(1, "date"), confidence: "likely", others: [{ meaning: "due-date", first: ["1 Oct 2026"] }] },
      column(2, "outstanding"),
    ],
  });
  const user = await open();
  expect(screen.getByText(/likely/)).toBeDefined();
  await user.click(screen.getByRole("button", { name: "Due date instead" }));
  await waitFor(() => expect(reading().meanings).toEqual({ 1: "due-date" }));
});

test("where it is doubtful whether it is the next ledger, it is asked before it is kept", async () => {
  const { kept } = withFile({ doubts: ["It has 1 row, the ledger as it is has 965: part of it may be missing."] });
  const user = await open();
  await user.click(screen.getByRole("button", { name: /^Keep 1 row/ }));
  expect(await screen.findAllByText("Keep this file as the ledger?")).not.toEqual([]);
  expect(kept()).toEqual([]);
  await user.click(screen.getByText("Keep file"));
  await waitFor(() => expect(kept().map((s) => s.query.get("sure"))).toEqual(["true"]));
});

test("what a column could be as well stands first among the choices, with what it would make of the first values", async () => {
  withFile({
    columns: [
      column(0, "customer-code"),
      { ...column(1, "date"), others: [{ meaning: "due-date", first: ["1 Oct 2026", "8 Oct 2026"] }] },
      column(2, "outstanding"),
    ],
  });
  await open();
  fireEvent.mouseDown(screen.getByRole("combobox", { name: "What “Posted” is" }));
  expect(await screen.findByText("1 Oct 2026 · 8 Oct 2026")).toBeDefined();
  const words = (await screen.findAllByText(/^(It could be|Due date|Anything else|Customer code)/)).map(
    (e) => e.textContent,
  );
  expect(words.indexOf("It could be")).toBeLessThan(words.indexOf("Anything else"));
});

test("columns that nothing depends on are folded away, and unfold by a click", async () => {
  const more = Array.from({ length: 3 }, (_, i) => ({ ...column(3 + i, "extra"), heading: `Spare ${i + 1}` }));
  withFile({ columns: [...ledger.columns, ...more] });
  const user = await open();
  expect(screen.queryByText("2026-10-01")).toBeNull();
  expect(screen.getByText("40.00", { selector: "td" })).toBeDefined();
  await user.click(screen.getByRole("button", { name: "and 4 more columns, kept for slots" }));
  expect(screen.getByText("2026-10-01")).toBeDefined();
  expect(screen.getByRole("combobox", { name: "What “Spare 3” is" })).toBeDefined();
});

test("a file that seems to be no ledger says what it seems to be, once, and is one click from being that", async () => {
  const says =
    "This looks like a customer list, not like a ledger: it has “Street”, and no column has the dates of documents.";
  const { sent } = withFile({ lacks: [says, "No column has a date."], seemsToBe: { kind: "customer-list", says } });
  const user = await open();
  expect(screen.getAllByText(says)).toHaveLength(1);
  await user.click(screen.getByRole("button", { name: "Take in as customer list" }));
  await waitFor(() =>
    expect(sent.filter((s) => s.path === `${at}/again`).map((s) => s.query.get("kind"))).toEqual(["customers"]),
  );
});

test("hidden columns are left out by a click, and put back by another", async () => {
  const finding = {
    code: "columns-hidden",
    severity: "warning" as const,
    file: "ledger.xlsx",
    sheet: "Open items",
    row: 1,
    column: "Posted",
    customer: null,
    message: "One column is hidden in the workbook: “Posted”. It is read like the others.",
    remedy: "Look whether they count, or leave them out.",
    other: null,
  };
  const { reading } = withFile({
    warnings: 1,
    findings: [{ code: finding.code, severity: "warning", count: 1, first: [finding] }],
  });
  const user = await open();
  await user.click(screen.getByRole("button", { name: "Leave out hidden columns" }));
  await waitFor(() => expect(reading().leavesOutHiddenColumns).toBe(true));
});

test("a finding leads to its cell", async () => {
  const finding = {
    code: "amount-unreadable",
    severity: "error" as const,
    file: "ledger.csv",
    sheet: null,
    row: 2,
    column: "Rest",
    customer: null,
    message: "“forty” is not an amount.",
    remedy: "Correct it, or leave the row out.",
    other: null,
  };
  withFile({ errors: 1, findings: [{ code: finding.code, severity: "error", count: 1, first: [finding] }] });
  const user = await open();
  await user.click(screen.getByRole("button", { name: "Row 2, Rest" }));
  const sheet = screen.getByRole("grid", { name: "The file as it stands" });
  expect(sheet.getAttribute("aria-activedescendant")).toBe("cell-2-2");
  expect(document.activeElement).toBe(sheet);
});
