import { expect, test, type Page } from "@playwright/test";
import { isPrepared, makeBook, signIn, takeIn, takeInCards } from "../people";

const proof = (page: Page) => page.getByRole("region", { name: "Proof in GBP" });
const row = (page: Page, name: RegExp) => page.getByRole("row", { name });

/** Prepares reminders as of a day. */
async function prepareReminders(page: Page, name: string, asOf: string): Promise<void> {
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  await page.getByLabel("What goes").click();
  await page.getByTitle("Reminders", { exact: true }).click();
  await page.getByLabel("Name of the new round").fill(name);
  await page.getByLabel("As of").fill(asOf);
  await page.getByLabel("As of").press("Tab");
  await page.getByRole("button", { name: "Prepare a round" }).click();
  await expect(page.getByRole("heading", { name, exact: true })).toBeVisible();
  await isPrepared(page);
}

test("the first reminder goes to whom it is due, and the second follows it after its days, in its own words", async ({
  page,
}) => {
  await signIn(page);
  await makeBook(page, "Reminders one after the other");
  await takeIn(page, "files/overdue.csv");
  await takeInCards(page, "files/overdue-cards.csv");

  // The levels of this book: the second a fortnight after the first.
  await page.getByRole("link", { name: "Words & paper" }).click();
  await page.getByRole("tab", { name: "Figures" }).click();
  await page.getByLabel("Level 2, days past due").fill("5");
  await page.getByRole("button", { name: "Save rules" }).click();
  await expect(page.getByText("Level 2 comes at 5 days past due, not later than level 1 at 7.")).toBeVisible();
  await page.getByLabel("Level 2, days past due").fill("20");
  await page.getByRole("button", { name: "Save rules" }).click();
  await expect(page.getByText("Rounds that are prepared from now on go by it.")).toBeVisible();

  await prepareReminders(page, "First of November", "31 Oct 2026");
  await expect(proof(page)).toContainText("2 ready £300.49");
  await expect(proof(page)).toContainText("difference £0.00 ✓");
  await expect(row(page, /Abbot’s Table reminder 1 2 .*200\.50/)).toBeVisible();
  await proof(page).getByRole("button", { name: "why" }).click();
  await expect(row(page, /Carrow House no reminder is due 1 .*500\.00/)).toBeVisible();
  await expect(row(page, /Dunmore Clinic in dispute or held back 1 .*300\.00/)).toBeVisible();
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).click();
  await expect(
    page.frameLocator('iframe[title="Message to Abbot’s Table"]').getByText("Perhaps this has escaped your attention"),
  ).toBeVisible();

  await page.getByRole("button", { name: /^Release 2 parcels/ }).click();
  const dialog = page.getByRole("dialog", { name: "Release First of November" });
  await expect(dialog.getByText("Reminder 1, friendly")).toBeVisible();
  await dialog.getByRole("button", { name: "Release 2 messages" }).click();
  await expect(proof(page)).toContainText("2 sent £300.49");

  // A year later everything is old enough; what was reminded once gets the second level, the rest its first.
  await prepareReminders(page, "The next", "31 Oct 2027");
  await expect(row(page, /Abbot’s Table reminder 2 2 .*200\.50/)).toBeVisible();
  await expect(row(page, /Carrow House reminder 1 1 .*500\.00/)).toBeVisible();
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).click();
  await expect(
    page.frameLocator('iframe[title="Message to Abbot’s Table"]').getByText("We have already reminded you"),
  ).toBeVisible();
  await page.keyboard.press("3");
  await expect(page.getByText(/^reminder 1 sent on /)).toHaveCount(2);

  // Only the second level is wanted.
  await page.getByRole("checkbox", { name: "level 1, from 7 days" }).click();
  await expect(row(page, /Carrow House reminder/)).toHaveCount(0);
  await expect(page.getByRole("button", { name: /^Release 2 parcels/ })).toBeVisible();
  await expect(proof(page)).toContainText("difference £0.00 ✓");
});
