import { expect, test } from "@playwright/test";
import { pdfText } from "../documents";
import { choose, makeBook, prepareRound, signIn, takeIn } from "../people";

test("balances are confirmed, by message in the customer’s language and by post, and one goes once more", async ({
  page,
}) => {
  await signIn(page);
  await makeBook(page, "Confirmed Laundry");
  await takeIn(page, "files/open-items.csv");

  const card = async (name: string, fill: () => Promise<void>) => {
    await page.getByRole("link", { name: "Customers", exact: true }).click();
    await page.getByRole("button", { name, exact: true }).click();
    await fill();
    await page.getByRole("button", { name: "Save card" }).click();
    await expect(page.getByRole("button", { name: "Save card" })).toBeHidden();
  };
  const contact = async (title: string, name: string) => {
    await page.getByLabel("Title of contact 1").fill(title);
    await page.getByLabel("Name of contact 1").fill(name);
  };
  await test.step("cards say who reads German, and who wants paper", async () => {
    await card("Eldwick Manor", async () => {
      await contact("Ms", "Ines Caldera");
      await page.getByLabel("Language").click();
      await page.getByTitle("Deutsch", { exact: true }).click();
    });
    await card("Nobody Reached Inn", async () => {
      await contact("Mr", "Owen Prys");
      await page.getByLabel("Delivery", { exact: true }).click();
      await page.getByTitle("post", { exact: true }).click();
      await page.getByLabel("Postal address").fill("3 Quay Street\nHarrow Dale HD2 4RT");
    });
    await card("Paid Ahead Hotel", () => contact("Mrs", "Ada Lunt"));
  });

  await test.step("a round of confirmations goes to those in credit too, each in its language", async () => {
    await prepareRound(page, "Year end", "Confirmations");
    await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
    const german = page.frameLocator('iframe[title="Message to Eldwick Manor"]');
    await expect(german.getByText(/Sie schulden uns £?388,25/)).toBeVisible();
    await page.getByRole("button", { name: "Paid Ahead Hotel", exact: true }).click();
    await expect(
      page.frameLocator('iframe[title="Message to Paid Ahead Hotel"]').getByText(/we owe you £200\.00/),
    ).toBeVisible();
    await page.getByRole("button", { name: "Nobody Reached Inn", exact: true }).click();
    const parcel = page.getByRole("article", { name: "Parcel of Nobody Reached Inn" });
    await expect(parcel).toContainText("3 Quay Street, Harrow Dale HD2 4RT");
    await expect(parcel).toContainText("NO09 Balance confirmation 2026-10-31.pdf");
  });

  await test.step("it is released; the letters are one file for the printer, and the log has them", async () => {
    await page.keyboard.press("r");
    const dialog = page.getByRole("dialog", { name: "Release Year end" });
    await expect(dialog).toContainText("1 by post; you print them from one PDF");
    await dialog.getByRole("button", { name: "Release 3 parcels" }).click();
    const sending = page.getByRole("status").filter({ hasText: "3 of 3 done" });
    await expect(sending).toContainText("1 letter for the post");
    const file = (await sending.getByRole("link", { name: "both sides" }).getAttribute("href")) ?? "";
    const printed = (await pdfText(page, file)).replace(/\s+/g, " ");
    expect(printed).toContain("1 letter, 1 page on 1 sheet");
    expect(printed).toContain("Confirmation of balance");

    await page.getByRole("link", { name: "Dispatch log" }).click();
    await choose(page, "Outcome", "printed");
    await expect(page.getByText("1 entry")).toBeVisible();
    const pane = page.getByRole("region", { name: "The message as sent" });
    await expect(pane).toContainText("By post to 3 Quay Street, Harrow Dale HD2 4RT");
    await expect(pane.getByRole("img", { name: /Confirmation of balance/ })).toBeVisible();
  });

  await test.step("who released it is told that it has ended, until it is seen", async () => {
    const ended = page.getByRole("region", { name: "Rounds that have ended" });
    await expect(ended).toContainText("Year end has ended: 2 sent, 1 printed.");
    const outcome = page.getByLabel("Outcome");
    const told = await outcome.boundingBox();
    await ended.getByRole("button", { name: "Seen Year end" }).click();
    await expect(ended).toBeHidden();
    expect(await outcome.boundingBox(), "what comes and goes by itself moves nothing under the pointer").toEqual(told);
  });

  await test.step("one goes once more, and is marked as that", async () => {
    await choose(page, "Outcome", "accepted");
    await page.getByRole("button", { name: "Eldwick Manor" }).click();
    await page.getByRole("button", { name: "Send again…" }).click();
    await expect(page.getByRole("heading", { name: "Year end, once more", exact: true })).toBeVisible();
    await page.keyboard.press("r");
    await page.getByRole("button", { name: "Release 1 message" }).click();
    await expect(page.getByText("1 of 1 sent")).toBeVisible();
    await page.getByRole("link", { name: "Dispatch log" }).click();
    await choose(page, "Round", "Year end, once more");
    await expect(page.getByText("1 entry")).toBeVisible();
    await expect(page.getByText("Year end, once more (a repeat)")).toBeVisible();
  });
});
