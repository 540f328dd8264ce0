import { expect, test } from "@playwright/test";
import { makeBook, prepareRound, signIn, takeIn } from "../people";

test("words that stand only where something is past due are written once, and each customer gets what holds", async ({
  page,
}) => {
  await signIn(page);
  await makeBook(page, "Words with conditions");
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await page.keyboard.press("4");
  const words = page.getByRole("textbox", { name: "Message" });
  await words.getByRole("button", { name: "Salutation" }).click();
  await page.getByLabel("Or else, where it is empty").fill("Good day");
  await page.keyboard.press("Escape");
  await expect(page.getByLabel("Or else, where it is empty")).toBeHidden();
  await words.getByText("With kind regards").click();
  await expect(words).toBeFocused();
  await page.keyboard.press("ControlOrMeta+End");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Please pay this week.");
  await page.getByLabel("When words of the message stand").click();
  await page.getByTitle("where something is past due").click();
  await expect(words.locator("[data-when=overdue]")).toHaveText("Please pay this week.");
  await page.getByRole("button", { name: "Use these words" }).click();
  await page.keyboard.press("1");
  const letter = (name: string) => page.frameLocator(`iframe[title="Message to ${name}"]`);
  await expect(letter("Eldwick Manor").getByText("Please pay this week.")).toBeVisible();
  await page.getByRole("button", { name: "Sørlandet Łódź Spa", exact: true }).click();
  await expect(letter("Sørlandet Łódź Spa").getByText("With kind regards")).toBeVisible();
  await expect(letter("Sørlandet Łódź Spa").getByText("Please pay this week.")).toHaveCount(0);
});
