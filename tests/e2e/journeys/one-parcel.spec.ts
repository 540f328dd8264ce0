import { expect, test, type Page } from "@playwright/test";
import { greetAnybody, makeBook, prepareRound, signIn, takeIn } from "../people";

const shown = (page: Page) => page.getByRole("article", { name: /^Parcel of / });
const marked = (page: Page) => page.getByRole("region", { name: "Marked parcels" });

test.beforeEach(async ({ page }, info) => {
  await signIn(page);
  await makeBook(page, `One parcel ${info.title.slice(0, 20).trim()}`);
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
  await greetAnybody(page, 3);
  await page.keyboard.press("1");
});

test("one message goes to others, in words of its own, and the next one as all do", async ({ page }) => {
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await expect(shown(page)).toHaveAccessibleName("Parcel of Eldwick Manor");
  await page.keyboard.press("t");
  const dialog = page.getByRole("dialog", { name: "Recipients of Eldwick Manor" });
  await dialog.getByLabel("Copy", { exact: true }).fill("owner@eldwick.example");
  await dialog.getByLabel("Copy", { exact: true }).press("Enter");
  await dialog.getByLabel("Blind copy").fill("joan@tarnbrook.example;");
  await dialog.getByRole("button", { name: "Save recipients" }).click();
  await expect(dialog).toBeHidden();
  await expect(shown(page)).toContainText("owner@eldwick.example");
  await expect(shown(page)).toContainText("This parcel has its own recipients.");

  await page.keyboard.press("4");
  await shown(page).getByText("This parcel alone").click();
  const message = shown(page).getByRole("textbox", { name: "Message" });
  await message.press("Control+End");
  await message.press("Enter");
  await message.pressSequentially("As agreed, half of it is due next week.");
  await shown(page).getByLabel("Remark on the document").fill("Half of it is due next week.");
  await shown(page).getByRole("button", { name: "Save for this parcel" }).click();
  await expect(shown(page)).toContainText("its own recipients, words and remark on the document");
  await expect(shown(page).getByRole("region", { name: "What differs from the wording" }).locator("ins")).toContainText(
    "As agreed, half of it is due next week.",
  );
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Gruffydd’s Kitchen", exact: true }).click();
  await expect(shown(page)).toHaveAccessibleName("Parcel of Gruffydd’s Kitchen");
  await expect(shown(page)).not.toContainText("its own");

  await page.getByRole("button", { name: /^Release 3 parcels/ }).click();
  await page.getByRole("button", { name: "Release 3 messages" }).click();
  await expect(page.getByText("3 of 3 sent")).toBeVisible();
  await page.getByRole("link", { name: /^Postroom/ }).click();
  await expect(page.getByRole("row", { name: /owner@eldwick\.example.*joan@tarnbrook\.example/ })).toHaveCount(1);
});

test("what was changed on one parcel can be put back", async ({ page }) => {
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await page.keyboard.press("4");
  await shown(page).getByText("This parcel alone").click();
  await shown(page).getByRole("textbox", { name: "Subject" }).fill("Only for you");
  await shown(page).getByRole("button", { name: "Save for this parcel" }).click();
  await expect(shown(page).getByText("Only for you").first()).toBeVisible();
  await shown(page).getByRole("button", { name: "Use the wording again" }).click();
  await expect(shown(page)).not.toContainText("This parcel has its own");
  await expect(shown(page).getByText("Only for you")).toHaveCount(0);
});

test("the marked one is held with a note, the other is released, and the rest follows", async ({ page }) => {
  await page.getByRole("checkbox", { name: "Mark Gruffydd’s Kitchen" }).check();
  await expect(marked(page)).toContainText("1 marked");
  await page.keyboard.press("Shift+h");
  const hold = page.getByRole("dialog", { name: "Hold 1 parcel?" });
  await hold.getByLabel("Note").fill("waits for a call");
  await hold.getByRole("button", { name: "Hold" }).click();
  await expect(page.getByRole("row", { name: /Gruffydd’s Kitchen waits for a call/ })).toBeVisible();
  await marked(page).getByRole("button", { name: "Let go" }).click();
  await expect(page.getByRole("row", { name: /^Ready · 3/ })).toBeVisible();

  await marked(page)
    .getByRole("button", { name: /^Release 1/ })
    .click();
  const release = page.getByRole("dialog", { name: "Release October" });
  await expect(release).toContainText("2 ready");
  await release.getByRole("button", { name: "Release 1 message" }).click();
  await expect(page.getByText("1 of 1 sent")).toBeVisible();
  await expect(marked(page)).toBeHidden();
  await expect(page.getByRole("row", { name: /^Ready · 2/ })).toBeVisible();
  await page.getByRole("button", { name: /^Release 2 parcels/ }).click();
  await page.getByRole("button", { name: "Release 2 messages" }).click();
  await expect(page.getByText("3 of 3 sent")).toBeVisible();
});

test("a few are rehearsed to oneself and looked at, and the release says so", async ({ page }) => {
  await page.keyboard.press("e");
  const dialog = page.getByRole("dialog", { name: "Rehearse October" });
  await dialog.getByLabel("To", { exact: true }).fill("marta@tarnbrook.example");
  await dialog.getByRole("button", { name: "Send 3 rehearsals" }).click();
  const looked = dialog.getByRole("button", { name: "I have looked at it" });
  await expect(looked).toHaveCount(3);
  await looked.first().click();
  await expect(dialog).toContainText("looked at by marta");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /^Release 3 parcels/ }).click();
  await expect(page.getByRole("dialog", { name: "Release October" })).toContainText(
    "3 of them as they are now, 1 looked at",
  );
  await page.keyboard.press("Escape");

  await page.getByRole("link", { name: /^Postroom/ }).click();
  await expect(page.getByRole("row", { name: /marta@tarnbrook\.example.*Rehearsal: / })).toHaveCount(3);
  await page.getByRole("link", { name: "Dispatch log" }).click();
  await expect(page.getByText("(a rehearsal)")).toBeVisible();
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  await expect(page.getByRole("link", { name: "October", exact: true })).toHaveCount(1);
});
