import { expect, test, type Page } from "@playwright/test";
import { makeBook, prepareRound, signIn, takeIn, takeInCards } from "../people";

const proof = (page: Page) => page.getByRole("region", { name: "Proof in GBP" });
const row = (page: Page, name: RegExp) => page.getByRole("row", { name });

test("a head office gets the statements of its branches, then each branch its own as well, and all is counted once", async ({
  page,
}) => {
  await signIn(page);
  await makeBook(page, "Groups and their branches");
  await takeIn(page, "files/groups.csv");
  await takeInCards(page, "files/group-cards.csv");

  // It is set on the card of the head office.
  await page.getByRole("button", { name: "Fernlea Hotels" }).click();
  await page.getByLabel("Statements of its branches go to").click();
  await page.getByTitle("the head office, for all").click();
  await page.getByRole("button", { name: "Save card" }).click();

  await prepareRound(page, "October");
  await expect(proof(page)).toContainText("2 ready £145.00");
  await expect(proof(page)).toContainText("difference £0.00 ✓");
  await page.getByRole("button", { name: "Fernlea Hotels", exact: true }).click();
  await expect(row(page, /Fernlea Hotels for 2 branches 4 .*140\.00/)).toBeVisible();
  const letter = page.frameLocator('iframe[title="Message to Fernlea Hotels"]');
  for (const words of ["Fernlea Hotels (FE01)", "Fernlea Quay House (FE02)", "Fernlea Hill (FE03)"]) {
    await expect(letter.getByRole("rowheader", { name: words })).toBeVisible();
  }
  await expect(letter.getByRole("row", { name: "Subtotal 80.00" })).toBeVisible();
  await expect(letter.getByRole("row", { name: "Total of all accounts £140.00" })).toBeVisible();

  // Each figure leads to its row, of whichever account it is.
  await page.keyboard.press("3");
  await page.getByLabel("Account", { exact: true }).click();
  await page.getByTitle("Fernlea Quay House (FE02)").click();
  const account = page.getByRole("table", { name: "Items of Fernlea Quay House" });
  await expect(account.getByRole("row", { name: /^C-1 .*20\.00 row 4/ })).toBeVisible();

  // In this round the branches get theirs as well, which makes more parcels and no more money.
  await page.getByLabel("Statements of branches go to").click();
  await page.getByTitle("the head office and each branch").click();
  await expect(row(page, /Fernlea Hill also on FE01’s, counted there 1 .*50\.00/)).toBeVisible();
  await expect(page.getByRole("button", { name: /^Release 4 parcels/ })).toBeVisible();
  await expect(proof(page)).toContainText("2 ready £145.00");
  await expect(proof(page)).toContainText("difference £0.00 ✓");
});

test("what holds for all statements of the book is set in one place", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Figures as set");
  await takeIn(page, "files/groups.csv");
  await page.getByRole("link", { name: "Words & paper" }).click();
  await page.getByRole("tab", { name: "Figures" }).click();
  await page.getByLabel("Last day of each age band").fill("30, 20");
  await page.getByRole("button", { name: "Save rules" }).click();
  await expect(page.getByText("The bands need one to eight last days that grow, such as 30, 60, 90.")).toBeVisible();
  await page.getByLabel("Last day of each age band").fill("7 14");
  await page.getByLabel("Credits stand").click();
  await page.getByTitle("in the band of their own age").click();
  await page.getByRole("button", { name: "Save rules" }).click();
  await expect(page.getByText("Rounds that are prepared from now on go by it.")).toBeVisible();

  await prepareRound(page, "By the week");
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).click();
  const letter = page.frameLocator('iframe[title="Message to Abbot’s Table"]');
  await expect(letter.getByRole("cell", { name: "8–14 days 0.00" })).toBeVisible();
  await expect(letter.getByRole("cell", { name: /^credits/ })).toHaveCount(0);
});
