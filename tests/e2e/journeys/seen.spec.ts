import { expect, test } from "@playwright/test";
import { greetAnybody, makeBook, prepareRound, signIn, takeIn } from "../people";

test("what another person changes while a round is looked through is told, and does not go unseen", async ({
  page,
  context,
}) => {
  await signIn(page);
  await makeBook(page, "Four Eyes Laundry");
  const book = new URL(page.url()).pathname.split("/")[2];
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await greetAnybody(page, 3);
  await page.keyboard.press("1");
  const letter = page.frameLocator('iframe[title="Message to Eldwick Manor"]');
  await expect(letter.getByText("Good day,")).toBeVisible();
  await page.keyboard.press("r");
  const dialog = page.getByRole("dialog", { name: "Release October" });
  const release = dialog.getByRole("button", { name: "Release 3 messages" });
  await expect(release).toBeVisible();

  const other = await context.newPage();
  await other.goto(`/books/${book}/words?part=paper`);
  await other.getByLabel("How to pay, a line each").fill("By transfer to account 99999999");
  await other.getByRole("button", { name: "Save letterhead" }).click();
  await expect(other.getByText("The next statements carry it.")).toBeVisible();
  await other.goto(`/books/${book}/words`);
  const words = other.getByRole("textbox", { name: "Message" });
  await words.getByText("With kind regards").click();
  await other.keyboard.press("ControlOrMeta+End");
  await other.keyboard.press("Enter");
  await other.keyboard.type("We have a new bank.");
  const saved = other.waitForResponse((r) => r.request().method() === "PUT" && r.url().includes("/wordings/"));
  await other.getByRole("button", { name: "Save wording" }).click();
  expect((await saved).status()).toBe(200);

  await release.click();
  await expect(dialog.getByRole("alert")).toContainText(
    "Since this round was prepared, the wording (3 parcels) and the letterhead (3 parcels) changed.",
  );
  await dialog.getByRole("button", { name: "Prepare again" }).click();
  await expect(dialog).toBeHidden();
  await expect(letter.getByText("We have a new bank.")).toBeVisible();
  await page.keyboard.press("2");
  const paper = page.getByRole("article", { name: "Parcel of Eldwick Manor" });
  await expect(paper.getByRole("img", { name: /99999999/ })).toBeVisible();
  await page.keyboard.press("r");
  await release.click();
  await expect(page.getByRole("row", { name: /Sent · 3/ })).toBeVisible();
});
