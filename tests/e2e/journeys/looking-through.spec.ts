import { expect, test, type Page } from "@playwright/test";
import { makeBook, prepareRound, signIn, takeIn } from "../people";

const proof = (page: Page) => page.getByRole("region", { name: "Proof in GBP" });
const shown = (page: Page) => page.getByRole("article", { name: /^Parcel of / });

test.beforeEach(async ({ page }, info) => {
  await signIn(page);
  await makeBook(page, `Looking ${info.title.slice(0, 20).trim()}`);
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
});

test("a round is looked through by keyboard: next, back, hold, take out with a reason", async ({ page }) => {
  await expect(shown(page)).toHaveAccessibleName("Parcel of Eldwick Manor");
  await page.keyboard.press("j");
  await expect(shown(page)).toHaveAccessibleName("Parcel of Gruffydd’s Kitchen");
  await page.keyboard.press("k");
  await expect(shown(page)).toHaveAccessibleName("Parcel of Eldwick Manor");

  await page.keyboard.press("h");
  await expect(page.getByRole("row", { name: "Held · 1 388.25" })).toBeVisible();
  await expect(proof(page)).toContainText("difference £0.00 ✓");
  await page.keyboard.press("h");
  await expect(page.getByRole("row", { name: /^Held/ })).toHaveCount(0);

  await page.keyboard.press("x");
  const dialog = page.getByRole("dialog", { name: "Take Eldwick Manor out of this round?" });
  await expect(dialog.getByRole("button", { name: "Take out" })).toBeDisabled();
  await dialog.getByLabel("Reason").fill("paid this morning");
  await dialog.getByRole("button", { name: "Take out" }).click();
  await expect(page.getByRole("button", { name: "Eldwick Manor", exact: true })).toHaveCount(0);
  await expect(proof(page)).toContainText("difference £0.00 ✓");
  await proof(page).getByRole("button", { name: "why" }).click();
  await page
    .getByRole("row", { name: /Eldwick Manor taken out by hand/ })
    .getByRole("button", { name: "put back" })
    .click();
  await expect(page.getByRole("button", { name: "Eldwick Manor", exact: true })).toBeVisible();
});

test("what is held while another decision is under way is held as well", async ({ page }) => {
  let letGo = () => {};
  const waits = new Promise<void>((resolve) => (letGo = resolve));
  await page.route("**/decisions?**", async (route) => {
    await waits;
    await route.continue();
  });
  await page.keyboard.press("h");
  // However quickly keys follow each other, each acts on what the one before it brought.
  await page.keyboard.press("j");
  await page.keyboard.press("h");
  await page.keyboard.press("j");
  await page.keyboard.press("h");
  await page.keyboard.press("h");
  letGo();
  await expect(page.getByRole("row", { name: /^Held · 2/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /Mark Eldwick Manor held/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /Mark Gruffydd’s Kitchen held/ })).toBeVisible();
  await expect(proof(page)).toContainText("difference £0.00 ✓");
});

test("a wide window shows message and statement side by side, and a narrow one cuts nothing off", async ({ page }) => {
  const message = page.getByTitle("Message to Eldwick Manor");
  const statement = page.getByText("Page 1 of 1");
  await page.setViewportSize({ width: 1920, height: 1080 });
  await expect(message).toBeVisible();
  await expect(statement).toBeVisible();
  await page.keyboard.press("2");
  await expect(message).toBeVisible();

  await page.setViewportSize({ width: 1024, height: 768 });
  await expect(statement).toBeVisible();
  await expect(message).toBeHidden();
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
  for (const sum of await page.getByRole("cell", { name: /^\d[\d,]*\.\d\d$/ }).all()) {
    expect(await sum.evaluate((e) => e.scrollWidth <= e.clientWidth)).toBe(true);
  }
});

test("a choice shows its effect at once in list and proof", async ({ page }) => {
  await page.getByLabel("Overdue by at least, days").fill("45");
  await page.getByLabel("Overdue by at least, days").press("Enter");
  await expect(page.getByRole("button", { name: "Eldwick Manor", exact: true })).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Gruffydd’s Kitchen", exact: true })).toBeVisible();
  await expect(proof(page)).toContainText("difference £0.00 ✓");
  await proof(page).getByRole("button", { name: "why" }).click();
  await expect(page.getByRole("row", { name: /Eldwick Manor not overdue enough 3 put in… 388\.25/ })).toBeVisible();
});

test("what is missing is put right on the card, and the parcel in view shows it", async ({ page }) => {
  await expect(shown(page)).toContainText("Needs you: salutation is empty.");
  await page.keyboard.press("c");
  const card = page.getByRole("dialog", { name: "Customer card" });
  await card.getByLabel("Title of contact 1").fill("Ms");
  await card.getByLabel("Name of contact 1").fill("Orla Penhale");
  await card.getByRole("button", { name: "Save card" }).click();
  await expect(page.getByRole("row", { name: /^Ready · 1/ })).toBeVisible();
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await expect(
    page.frameLocator('iframe[title="Message to Eldwick Manor"]').getByText("Dear Ms Penhale,"),
  ).toBeVisible();
});

test("a figure leads to its row in the file", async ({ page }) => {
  await page.keyboard.press("3");
  await shown(page)
    .getByRole("row", { name: /T-40002/ })
    .getByRole("link", { name: "row 3" })
    .click();
  await expect(page.getByRole("heading", { name: "open-items.csv" })).toBeVisible();
  await expect(page.locator("tr[aria-current=true]")).toContainText("T-40002");
});
