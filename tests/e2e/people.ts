import { expect, type Page } from "@playwright/test";

/** Signs in as the person whom the demo names, and waits for the first page. */
export async function signIn(page: Page): Promise<void> {
  await page.goto("/sign-in");
  await page.getByLabel("Name").fill("marta");
  await page.getByLabel("Password").fill("hire-and-launder");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("navigation", { name: "Places" })).toBeVisible();
}

/** Opens the sample firm's book and tells its number. */
export async function openSampleFirm(page: Page): Promise<number> {
  const session = (await (await page.request.get("/api/session")).json()) as { books: { id: number; name: string }[] };
  const book = session.books.find((b) => b.name === "Tarnbrook Linen Hire");
  expect(book, "the sample firm's book").toBeDefined();
  await page.goto(`/books/${book?.id}/today`);
  await expect(page.getByRole("heading", { name: "Owed to us" })).toBeVisible();
  return book?.id ?? 0;
}

/** Makes a book of its own for a test, so that no test stands on what another left. */
export async function makeBook(page: Page, firm: string): Promise<void> {
  await page.goto("/new-book");
  await page.getByLabel("The firm’s name").fill(firm);
  await page.getByLabel("Address, a line each").fill("1 Mill Race\nHarrow Dale HD1 1AA");
  await page.getByLabel("How to pay, a line each").fill("By transfer to account 00000000");
  await page.getByRole("button", { name: "Create book" }).click();
  await expect(page.getByRole("heading", { name: "First, take in the ledger" })).toBeVisible();
  await expect(page.getByRole("button", { name: `Book: ${firm}. Change` })).toBeVisible();
}

/** A file that stands in no folder. */
export const fileOf = (name: string, mimeType: string, content: string | Buffer) => ({
  name,
  mimeType,
  buffer: Buffer.from(content),
});

/** Takes a ledger file in through the browser, and keeps it once it was looked at. */
export async function takeIn(
  page: Page,
  file: string | ReturnType<typeof fileOf>,
  look?: () => Promise<void>,
): Promise<void> {
  await page.getByRole("link", { name: "Ledger", exact: true }).click();
  await page.getByLabel("Ledger file").setInputFiles(file);
  await expect(page.getByRole("grid", { name: "The file as it stands" })).toBeVisible();
  await look?.();
  await page.getByRole("button", { name: /^Keep / }).click();
  await expect(page.getByText("is the ledger", { exact: true })).toBeVisible();
}

/** Takes a customer list in through the browser, and waits until its cards are there. */
export async function takeInCards(page: Page, file: string): Promise<void> {
  await page.getByRole("link", { name: "Customers", exact: true }).click();
  await page.getByLabel("Customer list").setInputFiles(file);
  await page.getByRole("button", { name: /^Keep / }).click();
  await expect(page.getByRole("heading", { name: "Customers" })).toBeVisible();
}

/** Waits until the parcels of the round in view are made up. */
export const isPrepared = (page: Page) => expect(page.getByRole("region", { name: /^Proof in / })).toBeVisible();

/** Prepares a round at the end of October 2026, of statements unless something else is named. */
export async function prepareRound(page: Page, name: string, about?: string): Promise<void> {
  await beginRound(page, name, about);
  await isPrepared(page);
}

/** Makes a round at the end of October 2026, whose parcels are not made up yet. */
export async function beginRound(page: Page, name: string, about?: string): Promise<void> {
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  if (about) {
    await page.getByLabel("What goes").click();
    await page.getByTitle(about, { exact: true }).click();
  }
  await page.getByLabel("Name of the new round").fill(name);
  await page.getByLabel("As of").fill("31 Oct 2026");
  await page.getByLabel("As of").press("Tab");
  await page.getByRole("button", { name: "Prepare a round" }).click();
  await expect(page.getByRole("heading", { name, exact: true })).toBeVisible();
}

/** Gives the words of the parcel in view a greeting for those without a salutation, so that so many are ready. */
export async function greetAnybody(page: Page, ready: number): Promise<void> {
  await page.keyboard.press("4");
  await page.getByRole("textbox", { name: "Message" }).getByRole("button", { name: "Salutation" }).click();
  await page.getByLabel("Or else, where it is empty").fill("Good day");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Save wording" }).click();
  await expect(page.getByRole("row", { name: new RegExp(`^Ready · ${ready}\\b`) })).toBeVisible();
  await seenAll(page);
}

/** Says that what changed by itself in the round has been seen. */
export async function seenAll(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Seen all" }).click();
  await expect(page.getByText("Since this round was looked through")).toBeHidden();
}

/** Makes a book with a ledger of its own and opens its layouts. */
export async function openLayouts(page: Page, firm: string): Promise<void> {
  await signIn(page);
  await makeBook(page, firm);
  await takeIn(page, "files/open-items.csv");
  await page.getByRole("link", { name: "Words & paper" }).click();
  await page.getByRole("tab", { name: "Layouts" }).click();
}

/** Makes the layout that comes with Rendal one of the book's own. */
export async function ownLayout(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Save as a copy" }).click();
  await expect(page.getByRole("button", { name: "Save layout" })).toBeVisible();
}

/** Chooses from a list that opens. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  const box = page.getByRole("combobox", { name: label, exact: true });
  await box.click();
  await page.getByTitle(option, { exact: true }).click();
  await expect(box).toHaveAttribute("aria-expanded", "false");
}
