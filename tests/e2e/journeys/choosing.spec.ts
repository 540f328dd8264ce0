import { expect, test, type Page } from "@playwright/test";
import { beginRound, makeBook, prepareRound, signIn, takeIn } from "../people";

const proof = (page: Page) => page.getByRole("region", { name: "Proof in GBP" });
const account = (page: Page) => page.getByRole("table", { name: /^Items of / });

test("overdue more than 30 days, over 100.00, not in dispute, one unit: count, sum, reasons, proof; an item out; a figure to its row", async ({
  page,
}) => {
  await signIn(page);
  await makeBook(page, "Choosing by what is owed");
  await takeIn(page, "files/reminders.csv");
  await prepareRound(page, "Northern reminders");

  const settle = () => expect(page.locator("[aria-busy=true]")).toHaveCount(0);
  await page.getByLabel("Overdue by at least, days").fill("31");
  await page.getByLabel("Overdue by at least, days").press("Enter");
  await settle();
  await page.getByLabel("Minimum balance").fill("100.01");
  await page.getByLabel("Minimum balance").press("Enter");
  await settle();
  for (const name of ["With items in dispute", "Harbour"]) {
    await page.getByRole("checkbox", { name }).click();
    await expect(page.getByRole("checkbox", { name })).not.toBeChecked();
    await settle();
  }

  // No card is filled in this book yet, so that each of them waits for a salutation.
  await expect(proof(page)).toContainText("Ledger £2,450.49");
  await expect(proof(page)).toContainText("3 need you £550.50");
  await expect(proof(page)).toContainText("5 left out £1,899.99");
  await expect(proof(page)).toContainText("difference £0.00 ✓");
  await proof(page).getByRole("button", { name: "why" }).click();
  for (const row of [
    /Beacon Lodge below the least balance 1 .*99\.99/,
    /Carrow House not overdue enough 1 .*500\.00/,
    /Dunmore Clinic in dispute or held back 1 .*300\.00/,
    /East Quay Apartments other unit or column 1 .*900\.00/,
    /Fernlea Hotels below the least balance 1 .*100\.00/,
  ]) {
    await expect(page.getByRole("row", { name: row })).toBeVisible();
  }

  // The choice is saved under a name, to be used in the next round.
  await page.getByRole("button", { name: "save these choices…" }).click();
  const saving = page.getByRole("dialog", { name: "Save these choices" });
  await saving.getByLabel("Name").fill("Northern reminders");
  await saving.getByRole("button", { name: "Save", exact: true }).click();
  await expect(saving).toBeHidden();

  // One item is taken out with a reason: the sum goes down by it, and the proof holds.
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).click();
  await page.keyboard.press("3");
  await account(page).getByRole("button", { name: "leave out… T-2" }).click();
  const dialog = page.getByRole("dialog", { name: "Leave T-2 out?" });
  await expect(dialog.getByRole("button", { name: "Leave out" })).toBeDisabled();
  await dialog.getByLabel("Reason").fill("paid at the door");
  await dialog.getByRole("button", { name: "Leave out" }).click();
  await expect(proof(page)).toContainText("3 need you £470.00");
  await expect(proof(page)).toContainText("difference £0.00 ✓");
  await expect(account(page).getByText("item taken out by hand · “paid at the door”")).toBeVisible();
  await account(page).getByRole("button", { name: "take back T-2" }).click();
  await expect(proof(page)).toContainText("3 need you £550.50");

  // Another is held back from every round, until a day.
  await account(page).getByRole("button", { name: "leave out… T-1" }).click();
  const hold = page.getByRole("dialog", { name: "Leave T-1 out?" });
  await hold.getByText("Held back from every round").click();
  await hold.getByLabel("Reason").fill("asked the driver");
  await hold.getByLabel("Follow up on").fill("1 Dec 2099");
  await hold.getByLabel("Follow up on").press("Tab");
  await hold.getByRole("button", { name: "Leave out" }).click();
  // 80.50 is below the least balance now, so that the customer goes with it.
  await expect(proof(page)).toContainText("2 need you £350.00");
  await expect(proof(page)).toContainText("difference £0.00 ✓");

  // A customer whom the choices leave out is put in with a reason, and is the parcel in view.
  await page
    .getByRole("row", { name: /Carrow House not overdue enough/ })
    .getByRole("button", { name: "put in…" })
    .click();
  const putIn = page.getByRole("dialog", { name: "Put Carrow House into this round?" });
  await putIn.getByLabel("Reason").fill("asked for a statement");
  await putIn.getByRole("button", { name: "Put in" }).click();
  await expect(page.getByRole("article", { name: "Parcel of Carrow House" })).toBeVisible();
  await expect(proof(page)).toContainText("3 need you £850.00");
  await expect(proof(page)).toContainText("difference £0.00 ✓");

  // Where the items of one who is left out end is told too.
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).first().click();
  const where = page.getByRole("dialog", { name: "Where each item ends" });
  await expect(
    where.getByText("in dispute or held back · “asked the driver” · comes up again on 1 Dec 2099"),
  ).toBeVisible();
  await where.getByRole("button", { name: "end hold T-1" }).click();
  await expect(where.getByRole("button", { name: "leave out… T-1" })).toBeVisible();
  await where.getByRole("button", { name: "Close" }).click();
  await expect(proof(page)).toContainText("4 need you £1,050.50");

  // And one figure leads to its row of the file.
  await page.getByRole("button", { name: "Granary Bistro", exact: true }).click();
  await account(page).getByRole("row", { name: /^T-9/ }).getByRole("link", { name: "row 10" }).click();
  await expect(page).toHaveURL(/row=10$/);
  await expect(page.getByRole("gridcell", { name: "T-9" })).toBeVisible();

  await prepareRound(page, "The next one");
  await page.getByRole("combobox", { name: "Use a saved choice" }).click();
  await page.getByTitle("Northern reminders", { exact: true }).click();
  await expect(proof(page)).toContainText("3 need you £550.50");
  await expect(page.getByLabel("Minimum balance")).toHaveValue("100.01");

  // Several of those left out are marked and put in for one reason; who was taken out meanwhile is put back the same way.
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).click();
  await page.keyboard.press("x");
  const out = page.getByRole("dialog", { name: "Take Abbot’s Table out of this round?" });
  await out.getByLabel("Reason").fill("calls tomorrow");
  await out.getByRole("button", { name: "Take out" }).click();
  await proof(page).getByRole("button", { name: "why" }).click();
  await expect(page.getByRole("row", { name: /Abbot’s Table taken out by hand/ })).toBeVisible();
  const left = page.getByRole("region", { name: "Marked among those left out" });
  const everybody = page.getByRole("checkbox", { name: "Mark all left out who can be put in" });
  await everybody.click();
  await expect(left.getByRole("status")).toHaveText("4 left out marked");
  await everybody.click();
  await expect(left).toHaveCount(0);
  const boxes = page.getByRole("checkbox", { name: /^Mark (Beacon Lodge|Carrow House|Abbot’s Table)$/ });
  await boxes.first().click();
  await boxes.last().click({ modifiers: ["Shift"] });
  await expect(left.getByRole("status")).toHaveText("3 left out marked");
  await left.getByRole("button", { name: "Put in 2…" }).click();
  const both = page.getByRole("dialog", { name: "Put 2 customers into this round?" });
  await both.getByLabel("Reason").fill("asked for statements");
  await both.getByRole("button", { name: "Put in" }).click();
  await expect(page.getByRole("article", { name: "Parcel of Beacon Lodge" })).toBeVisible();
  await left.getByRole("button", { name: "Put back 1" }).click();
  await expect(left).toHaveCount(0);
  for (const name of ["Beacon Lodge", "Carrow House", "Abbot’s Table"]) {
    await expect(page.getByRole("row", { name: new RegExp(`^Mark ${name} needs you`) })).toBeVisible();
  }
  await expect(proof(page)).toContainText("difference £0.00 ✓");
});

test("a payment is set by hand against an item, kept as a credit, and taken back", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Setting payments");
  await takeIn(page, "files/movements.csv");
  await prepareRound(page, "October");
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).click();
  await page.keyboard.press("3");
  const settled = page.getByRole("table", { name: "What payments settled" });
  await expect(settled.getByRole("row", { name: /P-1.*T-2.*£50.00.*it names the document/ })).toBeVisible();
  await expect(settled.getByRole("row", { name: /P-1.*T-1.*£70.00.*the oldest was open/ })).toBeVisible();

  const set = async (item: RegExp) => {
    await account(page).getByRole("button", { name: "set… P-1" }).click();
    const dialog = page.getByRole("dialog", { name: /^What does P-1 settle\?/ });
    await dialog.getByRole("combobox", { name: "Against" }).click();
    await page.getByTitle(item).click();
    await dialog.getByRole("button", { name: "Set", exact: true }).click();
    await expect(dialog).toBeHidden();
  };
  await set(/^T-1,/);
  await expect(settled.getByRole("row", { name: /P-1.*T-1.*£100.00.*set by hand/ })).toBeVisible();
  await expect(proof(page)).toContainText("difference £0.00 ✓");
  await set(/^nothing/);
  await expect(settled).toHaveCount(0);
  const said = page.getByRole("list", { name: "Set by hand" });
  await expect(said).toContainText("P-1 is kept as a credit");
  await said.getByRole("button", { name: "take back" }).click();
  await expect(settled.getByRole("row", { name: /P-1.*T-2.*£50.00.*it names the document/ })).toBeVisible();
});

test("how much a choice comes to is told while its parcels are still being made up", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Told at once");
  await takeIn(page, "files/reminders.csv");
  await prepareRound(page, "October");

  // The making of the parcels is kept back until the count was seen.
  let letGo = () => {};
  const seen = new Promise<void>((resolve) => (letGo = resolve));
  await page.route(/\/rounds\/\d+\?/, async (route) => {
    if (route.request().method() === "PUT") {
      await seen;
    }
    await route.continue();
  });
  await page.getByLabel("Minimum balance").fill("300,00");
  await page.getByLabel("Minimum balance").press("Enter");
  await expect(page.getByText(/^Making up 3 parcels, £1,850\.00; 4 left out…$/)).toBeVisible();
  letGo();
  await expect(proof(page)).toContainText("3 need you £1,850.00");
  await expect(page.getByText(/^Making up/)).toBeHidden();
});

test("making up a round can be stopped, and is begun again when somebody says so", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Stopped");
  await takeIn(page, "files/reminders.csv");
  // It takes as long as it is looked at.
  await page.route("**/prepare", () => {});
  await beginRound(page, "October");
  await expect(page.getByText("Making up the parcels…")).toBeVisible();
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  const stopped = page.getByRole("alert").filter({ hasText: "Stopped. The list is as it was before" });
  await expect(stopped).toBeVisible();
  await expect(page.getByText("Making up the parcels…")).toBeHidden();
  await page.unroute("**/prepare");
  await stopped.getByRole("button", { name: "Make it up" }).click();
  await expect(stopped).toBeHidden();
  await expect(proof(page)).toContainText("7 need you £2,450.49");
});

test("a choice that is changed while the round is being made up does not wait for that", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Changed meanwhile");
  await takeIn(page, "files/reminders.csv");
  // It never comes to its end by itself.
  await page.route("**/prepare", () => {});
  await beginRound(page, "October");
  await expect(page.getByText("Making up the parcels…")).toBeVisible();
  await page.getByLabel("Minimum balance").fill("300,00");
  await page.getByLabel("Minimum balance").press("Enter");
  await expect(proof(page)).toContainText("3 need you £1,850.00");
  await expect(page.getByText("Stopped. The list is as it was before")).toBeHidden();
});

test("a round is begun like an earlier one, with its days moved along", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Month after month");
  await takeIn(page, "files/reminders.csv");
  await prepareRound(page, "October");
  await page.getByLabel("Minimum balance").fill("300");
  await page.getByLabel("Minimum balance").press("Enter");
  await expect(proof(page)).toContainText("3 need you £1,850.00");
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  await expect(
    page.getByRole("row", { name: /^October Statements 31 Oct 2026 .* £1,850\.00 .*marta not yet/ }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Copy October" }).click();
  await expect(page.getByText("like October")).toBeVisible();
  await page.getByLabel("As of").fill("30 Nov 2026");
  await page.getByLabel("As of").press("Tab");
  await page.getByRole("button", { name: "Prepare a round" }).click();
  await expect(page.getByRole("heading", { name: "Statements at 30 Nov 2026" })).toBeVisible();
  await expect(page.getByLabel("Minimum balance")).toHaveValue("300.00");
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  await expect(page.getByRole("row", { name: "November 2026", exact: true })).toBeVisible();
  await expect(page.getByRole("row", { name: "October 2026", exact: true })).toBeVisible();
});
