import { readFile } from "node:fs/promises";
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
  await expect(words.locator("[data-when=overdue]").last()).toHaveText("Please pay this week.");
  await page.getByRole("button", { name: "Save wording" }).click();
  await page.keyboard.press("1");
  const letter = (name: string) => page.frameLocator(`iframe[title="Message to ${name}"]`);
  await expect(letter("Eldwick Manor").getByText("Please pay this week.")).toBeVisible();
  await page.getByRole("button", { name: "Sørlandet Łódź Spa", exact: true }).click();
  await expect(letter("Sørlandet Łódź Spa").getByText("With kind regards")).toBeVisible();
  await expect(letter("Sørlandet Łódź Spa").getByText("Please pay this week.")).toHaveCount(0);
});

test("the firm’s logo stands at the head of each message", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Messages with a logo");
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await page.keyboard.press("4");
  const words = page.getByRole("textbox", { name: "Message" });
  await words.getByText("With kind regards").click();
  await expect(words).toBeFocused();
  await page.keyboard.press("ControlOrMeta+Home");
  await page.getByLabel("Picture", { exact: true }).setInputFiles("files/mark.svg");
  const picture = words.getByRole("button", { name: /^Picture: / });
  await expect(picture.locator("img")).toHaveJSProperty("complete", true);
  await expect(words.locator("p").first().getByRole("button")).toHaveCount(1);
  await picture.click();
  await page.getByLabel("Width in pixels").fill("120");
  await page.getByLabel("Words where it is not shown").fill("Tarnbrook Linen Hire");
  await page.keyboard.press("Escape");
  await words.getByRole("button", { name: "Salutation" }).click();
  await page.getByLabel("Or else, where it is empty").fill("Good day");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Save wording" }).click();
  await expect(page.getByText("changed, not in use yet")).toHaveCount(0);
  await page.keyboard.press("1");
  const logo = page
    .frameLocator('iframe[title="Message to Eldwick Manor"]')
    .getByRole("img", { name: "Tarnbrook Linen Hire" });
  await expect(logo).toBeVisible();
  const shown = await logo.evaluate((e: HTMLImageElement) => ({ drawn: e.naturalWidth > 0, width: e.width }));
  expect(shown).toEqual({ drawn: true, width: 120 });

  // The wording goes into a file with its logo, and out of it into another book.
  await page.getByRole("link", { name: "Words & paper" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download" }).click(),
  ]);
  const name = await page.getByRole("navigation", { name: "Wordings" }).locator("[aria-current=true]").textContent();
  expect(download.suggestedFilename()).toBe(`${name}.html`);
  const file = await download.path();
  await makeBook(page, "Words out of a file");
  await page.getByRole("link", { name: "Words & paper" }).click();
  await page
    .getByLabel("Wording file", { exact: true })
    .setInputFiles({ name: "words.html", mimeType: "text/html", buffer: await readFile(file) });
  await expect(page.getByRole("button", { name: `${name} (2)`, exact: true })).toHaveAttribute("aria-current", "true");
  const taken = words.getByRole("button", { name: "Picture: Tarnbrook Linen Hire" }).locator("img");
  await expect.poll(() => taken.evaluate((e: HTMLImageElement) => e.naturalWidth)).toBeGreaterThan(0);
  await page.getByLabel("Wording file", { exact: true }).setInputFiles({
    name: "minutes.html",
    mimeType: "text/html",
    buffer: Buffer.from("<p>Minutes of the meeting</p>"),
  });
  await expect(page.getByText("“minutes.html” cannot be taken as a wording")).toBeVisible();
});
