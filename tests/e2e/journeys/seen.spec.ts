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

  // The round follows by itself, and what is about to be released cannot go before it was seen.
  const changed = "the wording (3 parcels) and the letterhead (3 parcels) changed";
  await expect(dialog.getByRole("alert")).toContainText(changed);
  await expect(release).toBeDisabled();
  await dialog.getByRole("button", { name: "Cancel" }).click();
  await expect(letter.getByText("We have a new bank.")).toBeVisible();
  const paper = page.getByRole("article", { name: "Parcel of Eldwick Manor" });
  await expect(paper.getByText("Changed since it was looked at last: the wording, the letterhead.")).toBeVisible();
  await page.keyboard.press("2");
  await expect(paper.getByRole("img", { name: /99999999/ })).toBeVisible();

  // One by one: what was looked at is not marked any more.
  await expect(page.getByText("the wording (2 parcels) and the letterhead (2 parcels) changed")).toBeVisible();
  await page.getByRole("button", { name: "Next changed" }).click();
  await expect(paper).toBeHidden();
  await expect(page.getByText("the wording (one parcel) and the letterhead (one parcel) changed")).toBeVisible();
  await expect(page.getByText("changed: the wording, the letterhead")).toHaveCount(1);
  await page.keyboard.press("r");
  await dialog.getByLabel("I have seen what changed").check();
  await release.click();
  await expect(page.getByRole("row", { name: /Sent · 3/ })).toBeVisible();
});

test("two people on one round: what one changes is there for the other at once, and neither overwrites the other", async ({
  page,
  browser,
}) => {
  await signIn(page);
  await makeBook(page, "Two Desks Laundry");
  const book = new URL(page.url()).pathname.split("/")[2];
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
  const round = page.url();
  const own = { "X-Rendal": "1" };
  const given = (await (
    await page.request.post(`/api/books/${book}/people`, { data: { name: `owen-${book}` }, headers: own })
  ).json()) as { key: string };
  const desk = await browser.newContext();
  const other = await desk.newPage();
  const joined = await other.request.post("/api/invitations/join", {
    data: { key: given.key, password: "mangle and press" },
    headers: own,
  });
  expect(joined.status()).toBe(204);
  await other.goto(round);

  // Each stays at the parcel that they look at, while the other's decision shows.
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await other.getByRole("button", { name: "Gruffydd’s Kitchen", exact: true }).click();
  await other.keyboard.press("h");
  await expect(page.getByRole("row", { name: /Held · 1/ })).toBeVisible();
  await expect(page.getByRole("article", { name: "Parcel of Eldwick Manor" })).toBeVisible();

  // Until the other's change is there, this one is made upon what was seen: of the same setting the second is told.
  await page.route("**/revision?**", (route) => route.abort());
  await other.getByLabel("Minimum balance").fill("400");
  await other.getByLabel("Minimum balance").press("Enter");
  await expect(other.getByRole("button", { name: "Eldwick Manor", exact: true })).toHaveCount(0);
  await page.getByLabel("Overdue by at least, days").fill("1");
  await page.getByLabel("Overdue by at least, days").press("Enter");
  await expect(page.getByLabel("Minimum balance")).toHaveValue("400.00");
  // From here on the other page is told of nothing: what it knew of is shown, and no question of its own is under way.
  await expect(other.getByLabel("Overdue by at least, days")).toHaveValue("1");
  await other.route("**/revision?**", (route) => route.abort());
  await other.waitForEvent("requestfailed", (request) => request.url().includes("/revision?"));
  await page.getByLabel("Minimum balance").fill("5");
  await page.getByLabel("Minimum balance").press("Enter");
  await expect(page.getByLabel("Minimum balance")).toHaveValue("5.00");
  await other.getByLabel("Minimum balance").fill("7");
  await other.getByLabel("Minimum balance").press("Enter");
  await expect(other.getByText(/^marta changed the minimum balance at .* since you saw it/)).toBeVisible();
  await expect(other.getByLabel("Minimum balance")).toHaveValue("5.00");
  await desk.close();
});
