import { expect, test, type Page } from "@playwright/test";
import { makeBook, prepareRound, signIn, takeIn } from "../people";

const shown = (page: Page) => page.getByRole("article", { name: /^Parcel of / });
const focused = (page: Page) => page.locator(":focus");

test.beforeEach(async ({ page }, info) => {
  await signIn(page);
  await makeBook(page, `Source ${info.title.slice(0, 20).trim()}`);
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
  await expect(shown(page)).toHaveAccessibleName("Parcel of Eldwick Manor");
});

test("by keyboard alone: from the list to a figure in the message, put right in the ledger, and back", async ({
  page,
}) => {
  await expect(page.locator("[data-mark]").first()).toBeAttached();
  // P leads to the first that came from data, Tab through the others.
  await page.keyboard.press("p");
  await expect(focused(page)).toHaveAttribute("data-mark", /./);
  while (!/ due$/.test((await focused(page).getAttribute("data-mark")) ?? "")) {
    await page.keyboard.press("Tab");
  }
  await expect(focused(page)).toHaveAccessibleName(/^Due date, row \d+: /);
  const was = ((await focused(page).getAttribute("aria-label")) ?? "").split(": ")[1] ?? "";
  await page.keyboard.press("Enter");
  const dialog = page.getByRole("dialog", { name: /^Due date, row \d+$/ });
  await expect(dialog.getByRole("textbox")).toBeFocused();
  await expect(dialog).toContainText("The file stays as it is");
  await page.keyboard.type("a week next Friday");
  await page.keyboard.press("Enter");
  await expect(dialog.getByRole("alert")).toContainText("With that the row could not be used");

  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("2026-12-24");
  await page.keyboard.press("Enter");
  await expect(dialog).toHaveCount(0);
  const message = page.frameLocator("iframe[title='Message to Eldwick Manor']");
  await expect(message.locator("body")).toContainText("24 Dec 2026");
  await expect(shown(page)).toContainText("Changed since it was looked at last");
  expect(was).not.toBe("");
  await page.keyboard.press("2");
  await expect(page.getByRole("img", { name: /24 Dec 2026/ })).toBeVisible();

  // And back: the keys of the list do what they did.
  await page.keyboard.press("j");
  await expect(shown(page)).toHaveAccessibleName("Parcel of Gruffydd’s Kitchen");

  await page.getByRole("link", { name: "Ledger", exact: true }).click();
  const list = page.getByRole("region", { name: "Corrected here, still wrong in the source" });
  await expect(list).toContainText("2026-12-24");
});

test("with the mouse on the page: an address leads to the card, a sum to its items, a number to its row", async ({
  page,
}) => {
  await page.keyboard.press("2");
  await page.getByRole("button", { name: "Name, on the card" }).first().click();
  await expect(page.getByRole("dialog", { name: "Customer card" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog", { name: "Customer card" })).toHaveCount(0);

  await page
    .getByRole("button", { name: /^Number, row \d+$/ })
    .first()
    .click();
  const dialog = page.getByRole("dialog", { name: /^Number, row \d+$/ });
  await dialog.getByRole("textbox").fill("T-CHANGED");
  await dialog.getByRole("button", { name: "Put right" }).click();
  await expect(page.getByRole("img", { name: /T-CHANGED/ })).toBeVisible();

  await page.getByRole("button", { name: "Reckoned" }).first().click();
  await expect(page.getByRole("table", { name: "Items of Eldwick Manor" })).toContainText("T-CHANGED");
  await expect(page.getByRole("table", { name: "Items of Eldwick Manor" })).toContainText("corrected: the file says");
});
