import { expect, test } from "@playwright/test";
import { fileOf, greetAnybody, makeBook, prepareRound, signIn, takeIn } from "../people";

const ledger = fileOf(
  "october.csv",
  "text/csv",
  [
    "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail",
    "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
    "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
    "CR03,Crown Inn,Invoice,T-3,2026-09-01,2026-10-01,30.00,c@crown.example",
  ].join("\n"),
);

test("a second person releases what the first one prepared, and sees what changed since they were asked", async ({
  page,
  browser,
}) => {
  const colleague = `Joan ${Date.now()}`;
  await signIn(page);
  await makeBook(page, "Four Eyes Laundry");
  await page.getByRole("button", { name: /marta: settings/ }).click();
  await page.getByRole("menuitem", { name: "Who has this book" }).click();
  await page.getByLabel("Invite", { exact: true }).fill(colleague);
  await page.getByRole("button", { name: "Invite" }).click();
  const address = await page.getByLabel("Address to pass on").inputValue();
  const theirs = await (await browser.newContext()).newPage();
  await theirs.goto(address);
  await theirs.getByLabel("A password of at least 10 characters").fill("linen and lavender");
  await theirs.getByRole("button", { name: "Open the book" }).click();

  await test.step("the maker of the book asks for a second person", async () => {
    await page.reload();
    await page.getByLabel(/A second person releases every round/).check();
    await expect(page.getByLabel(/A second person releases every round/)).toBeChecked();
  });

  const dialog = page.getByRole("dialog", { name: "Release October" });
  await test.step("who prepared the round cannot release it, and asks for its release", async () => {
    await takeIn(page, ledger);
    await prepareRound(page, "October");
    await greetAnybody(page, 3);
    await page.keyboard.press("r");
    await expect(dialog).toContainText("marta; somebody else who has this book releases it");
    await expect(dialog.getByRole("button", { name: /^Release / })).toBeHidden();
    await dialog.getByRole("button", { name: "Request release" }).click();
    await expect(dialog).toBeHidden();
  });

  const approval = theirs.getByRole("dialog", { name: "Release October" });
  await test.step("the second person finds it on Today, and sees what there is to know", async () => {
    await theirs.goto("/");
    await expect(theirs.getByText("marta asks for its release")).toBeVisible();
    await theirs.getByRole("link", { name: "October", exact: true }).click();
    await expect(theirs.getByRole("region", { name: /^Proof in / })).toBeVisible();
    await theirs.keyboard.press("r");
    await expect(approval).toContainText("Nothing of what goes changed since.");
    await approval.getByRole("button", { name: "Cancel" }).click();
  });

  await test.step("the first one takes a parcel back meanwhile, and the second one is told", async () => {
    await page.getByRole("button", { name: "Beacon Lodge", exact: true }).click();
    await page.keyboard.press("h");
    await expect(page.getByRole("row", { name: "Held · 1 20.00" })).toBeVisible();
    await theirs.keyboard.press("r");
    await expect(approval).toContainText(/Since then: marta decided about Beacon Lodge at/);
  });

  await test.step("the second one looks at the sample and releases", async () => {
    await approval
      .getByRole("button", { name: /Abbot’s Table|Crown Inn/ })
      .first()
      .click();
    await expect(approval).toBeHidden();
    await theirs.keyboard.press("r");
    await approval.getByRole("button", { name: "Release 2 messages" }).click();
    await expect(theirs.getByText(/2 sent/).first()).toBeVisible();
  });
});
