import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import { makeBook, openSampleFirm, prepareRound, signIn, takeIn } from "../people";

/** Each main view with what tells that it is there. */
const views: [string, (page: Page) => Promise<void>][] = [
  ["today", async (page) => await expect(page.getByRole("heading", { name: "Owed to us" })).toBeVisible()],
  ["ledger", async (page) => await expect(page.getByText("is the ledger", { exact: true })).toBeVisible()],
  ["customers", async (page) => await expect(page.getByRole("button", { name: "Abbot’s Table" })).toBeVisible()],
  [
    "customers?card=FE01",
    async (page) => await expect(page.getByLabel("Name of contact 1")).toHaveValue("Ines Caldera"),
  ],
  ["rounds", async (page) => await expect(page.getByRole("button", { name: "Prepare a round" })).toBeVisible()],
  ["words", async (page) => await expect(page.getByRole("textbox", { name: "Subject" })).toBeVisible()],
  [
    "words?part=paper",
    async (page) => await expect(page.getByLabel("The firm’s name")).toHaveValue("Tarnbrook Linen Hire"),
  ],
  [
    "words?part=layouts",
    async (page) => {
      await page.getByRole("button", { name: "Table of items", exact: true }).click();
      await expect(page.getByRole("region", { name: "Preview" }).getByRole("img", { name: /Statement/ })).toBeVisible();
    },
  ],
  [
    "words?part=figures",
    async (page) => await expect(page.getByLabel("Last day of each age band")).toHaveValue("30, 60, 90"),
  ],
  [
    "words?part=sender",
    async (page) => {
      await expect(page.getByLabel("Mail server")).toHaveValue("127.0.0.1");
      await page.getByRole("button", { name: "Test" }).click();
      await expect(page.getByRole("row", { name: /Address ✓ in order/ })).toBeVisible();
    },
  ],
  ["people", async (page) => await expect(page.getByRole("row", { name: "marta · you has the book" })).toBeVisible()],
  ["dispatch", async (page) => await expect(page.getByRole("heading", { name: "Dispatch log" })).toBeVisible()],
  [
    "postroom",
    async (page) => {
      await page.getByRole("button", { name: "Drills" }).click();
      await expect(page.getByRole("button", { name: "Begin" })).toBeVisible();
    },
  ],
];

const tones = ["light", "dark"] as const;
type Tone = (typeof tones)[number];

/** A page differs between its tones in nothing but its colours, so all the rest is looked at once. */
const rules: Record<Tone, Parameters<AxeBuilder["options"]>[0]["runOnly"]> = {
  light: { type: "tag", values: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"] },
  dark: { type: "rule", values: ["color-contrast", "link-in-text-block"] },
};

for (const tone of tones) {
  test(`every view can be used by everybody, in ${tone} tones`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: tone });
    await page.goto("/sign-in");
    await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
    await examine(page, "sign-in", tone);
    await signIn(page);
    const book = await openSampleFirm(page);
    for (const [path, isThere] of views) {
      await page.goto(`/books/${book}/${path}`);
      await isThere(page);
      await examine(page, path, tone);
    }
    await page.goto("/new-book");
    await expect(page.getByLabel("The firm’s name")).toBeVisible();
    await examine(page, "new book", tone);
    await page.goto(`/books/${book}/ledger`);
    await page.getByLabel("Ledger file").setInputFiles("../../demo/ledger-messy.xlsx");
    await expect(page.getByRole("gridcell", { name: "Grand total" })).toBeVisible();
    await examine(page, "intake", tone);
    await page.keyboard.press("n");
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Corrected value")).toBeFocused();
    await examine(page, "putting right", tone);
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Merge", exact: true }).click();
    await expect(page.getByRole("dialog", { name: "Merge OL-01 and OL01" })).toBeVisible();
    await examine(page, "one customer", tone);
    await page.keyboard.press("Escape");
    await page.getByText("What changes 2").click();
    await expect(page.getByRole("heading", { name: "Item by item" })).toBeVisible();
    await examine(page, "what changes", tone);
    await prepareRound(page, `Axe ${tone}`);
    for (const key of ["1", "2", "3", "4"]) {
      await page.keyboard.press(key);
      await expect(page.getByRole("tabpanel").first()).toBeVisible();
      await examine(page, `workbench ${key}`, tone);
    }
    await page.keyboard.press("r");
    await expect(page.getByText("Type the number of parcels to release them")).toBeVisible();
    await examine(page, "release", tone);
  });
}

test("no view scrolls sideways at 1024", async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await signIn(page);
  const book = await openSampleFirm(page);
  await prepareRound(page, "Narrow");
  const workbench = new URL(page.url()).pathname.replace(`/books/${book}/`, "");
  for (const path of [...views.map(([p]) => p), workbench]) {
    await page.goto(`/books/${book}/${path}`);
    await expect(page.getByRole("main")).toBeVisible();
    const [wide, seen] = await page.evaluate(() => [document.documentElement.scrollWidth, innerWidth]);
    expect(wide, path).toBeLessThanOrEqual(seen ?? 0);
  }
});

/**
 * What stands on a page as it will be printed is as large as there (WCAG 2.2, 2.5.8, “Essential”); the same cells of the message are
 * targets of full size, and are examined.
 */
const isOnPaper = (view: string, rule: string, html: string) =>
  view === "workbench 2" && rule === "target-size" && html.includes('data-mark="');

async function examine(page: Page, view: string, tone: Tone): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .options({ runOnly: rules[tone], resultTypes: ["violations"] })
    .exclude("iframe")
    // Frames are left out, so that no second page has to put the parts of several together.
    .setLegacyMode()
    .analyze();
  const wrong = violations.map(({ id, nodes }) => ({ id, nodes: nodes.filter((n) => !isOnPaper(view, id, n.html)) }));
  expect
    .soft(
      wrong
        .filter((v) => v.nodes.length > 0)
        .map((v) => `${view}: ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")}`),
    )
    .toEqual([]);
}

for (const tone of tones) {
  test(`a message reads on a telephone, on ${tone} ground`, async ({ page }) => {
    await signIn(page);
    await makeBook(page, `Telephones, ${tone}`);
    await takeIn(page, "files/open-items.csv");
    await prepareRound(page, "October");
    const [, book, id] = /books\/(\d+)\/rounds\/(\d+)/.exec(page.url()) ?? [];
    const round = (await (await page.request.get(`/api/books/${book}/rounds/${id}`)).json()) as {
      parcels: { id: number; items: number }[];
    };
    const fullest = round.parcels.reduce((a, b) => (b.items > a.items ? b : a));
    await page.emulateMedia({ colorScheme: tone });
    await page.setViewportSize({ width: 360, height: 740 });
    const { message } = (await (await page.request.get(`/api/books/${book}/parcels/${fullest.id}`)).json()) as {
      message: string;
    };
    await page.setContent(message);
    await expect(page.getByRole("columnheader", { name: "Open" })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth), "nothing runs off the screen").toBe(360);
    const tables = page.locator("div > table");
    expect(
      await tables.evaluateAll((all) =>
        Math.max(...all.map((t) => t.scrollWidth - (t.parentElement?.clientWidth ?? 0))),
      ),
      "no table is wider than the message",
    ).toBe(0);
    // A message is no page: it has no landmarks.
    const result = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa"]).analyze();
    expect(result.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(" ")).join(", ")}`)).toEqual([]);
  });
}

test("a page that cannot be loaded says so, and takes nothing else down", async ({ page }) => {
  await signIn(page);
  await openSampleFirm(page);
  await page.route(/\/assets\/DispatchPage-.*\.js$/, (route) => route.abort());
  await page.getByRole("link", { name: "Dispatch log" }).click();
  await expect(page.getByText("This page cannot be shown.")).toBeVisible();
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Rounds", exact: true })).toBeVisible();
  await page.unroute(/\/assets\/DispatchPage-.*\.js$/);
  await page.getByRole("link", { name: "Dispatch log" }).click();
  await page.getByRole("button", { name: "Load again" }).click();
  await expect(page.getByRole("heading", { name: "Dispatch log" })).toBeVisible();
});
