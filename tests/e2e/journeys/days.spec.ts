import { expect, test } from "@playwright/test";
import { makeBook, prepareRound, seenAll, signIn, takeIn } from "../people";

test.beforeEach(async ({ page }, info) => {
  await signIn(page);
  await makeBook(page, info.title.slice(0, 20).trim());
  await takeIn(page, "files/open-items.csv");
});

test("a day is kept as it was typed, though the page is drawn anew meanwhile", async ({ page }) => {
  // The list of rounds comes only after the day was typed.
  let letGo = () => {};
  const typed = new Promise<void>((resolve) => (letGo = resolve));
  await page.route(/\/books\/\d+\/rounds$/, async (route) => {
    if (route.request().method() === "GET") {
      await typed;
    }
    await route.continue();
  });
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  await page.getByLabel("As of").fill("31 Oct 2026");
  letGo();
  await expect(page.getByText(/^None yet\. A round prepares a message/)).toBeVisible();
  await expect(page.getByLabel("As of")).toHaveValue("31 Oct 2026");
  await page.getByRole("button", { name: "Prepare a round" }).click();
  await expect(page.getByText("as of 31 Oct 2026", { exact: false })).toBeVisible();
});

test("what is no day stays to be put right, and nothing is done with another", async ({ page }) => {
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  const asOf = page.getByLabel("As of");
  await asOf.fill("31 Okt 2026");
  await page.getByLabel("Name of the new round").fill("October");
  const told = page.getByText("“31 Okt 2026” is not a day. Write it as 31 Oct 2026 or 31/10/2026.");
  await expect(told).toBeVisible();
  await page.getByRole("button", { name: "Prepare a round" }).click();
  await expect(asOf).toBeFocused();
  await expect(page.getByRole("heading", { name: "Rounds" })).toBeVisible();
  // Picked from the calendar, and typed and corrected after it could be read.
  await asOf.click();
  await page.getByRole("cell", { name: "15", exact: true }).click();
  await expect(asOf).toHaveValue(/^15 /);
  await expect(told).toBeHidden();
  await asOf.fill("31/10/2026");
  await asOf.fill("3/10/2026");
  await expect(told).toBeHidden();
  await asOf.press("Tab");
  await expect(asOf).toHaveValue("3 Oct 2026");
  await asOf.fill("01/02/26");
  await asOf.press("Enter");
  await expect(page.getByText("as of 1 Feb 2026", { exact: false })).toBeVisible();
});

test("a round that is to leave later does not leave at once, however its moment was typed", async ({ page }) => {
  await prepareRound(page, "Later");
  await page.keyboard.press("4");
  await page.getByRole("textbox", { name: "Message" }).getByRole("button", { name: "Salutation" }).click();
  await page.getByLabel("Or else, where it is empty").fill("Good day");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Save wording" }).click();
  await expect(page.getByRole("row", { name: /^Ready · / })).toBeVisible();
  await seenAll(page);
  await page.keyboard.press("r");
  const dialog = page.getByRole("dialog", { name: "Release Later" });
  const leaves = dialog.getByLabel("Leaves at");
  await leaves.fill("tomorrow 7:30");
  await leaves.press("Tab");
  await dialog.getByRole("button", { name: /^Release \d+ messages/ }).click();
  await expect(dialog.getByRole("alert")).toHaveText(
    "“tomorrow 7:30” is not a day with a time. Write it as 2 Nov 2026, 07:30.",
  );
  await leaves.fill("2/11/2099 7:30");
  await leaves.press("Tab");
  await dialog.getByRole("button", { name: /^Release \d+ messages/ }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByText("leave at 2 Nov 2099, 07:30:00")).toBeVisible();

  // Stopped before anything left, it is as it was before the release: a day to leave at is asked for anew.
  await page.getByRole("button", { name: "Stop the rest" }).click();
  await page.getByRole("button", { name: "Stop sending" }).click();
  await expect(page.getByText("Nothing had left: the round can be changed and released again.")).toBeVisible();
  await expect(page.getByRole("row", { name: /^Ready · / })).toBeVisible();
  await page.getByLabel("As of").fill("30 Oct 2026");
  await page.getByLabel("As of").press("Tab");
  await expect(page.getByText("as of 30 Oct 2026", { exact: false })).toBeVisible();
  await expect(page.getByRole("row", { name: /^Ready · / })).toBeVisible();
  await page.keyboard.press("r");
  await expect(dialog.getByLabel("Leaves at")).toHaveValue("");
  await dialog.getByRole("button", { name: /^Release \d+ messages/ }).click();
  await expect(page.getByText(/^(\d+) of \1 sent$/)).toBeVisible();
});
