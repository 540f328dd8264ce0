import { expect, test, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { pdf, zip } from "../copies";
import { fileOf, makeBook, openSampleFirm, prepareRound, signIn, takeIn } from "../people";

/** Takes a picture once nothing on the page is still to come. */
const shot = async (page: Page, name: string) => {
  await expect(page.getByText("One moment…")).toHaveCount(0);
  await page.screenshot({ path: `../../docs/screenshots/${name}.png`, animations: "disabled" });
};

/** A ZIP of copies of the sample firm's invoices: all but four, of two of them two different ones, and a file that is of none. */
const october = () => {
  const invoices = readFileSync("../../demo/ledger-2026-10.csv", "utf8")
    .split("\n")
    .map((line) => line.split(/,(?=(?:[^"]*"[^"]*")*[^"]*$)/).map((cell) => cell.replaceAll('"', "")))
    .filter(([, , type]) => type === "INV")
    .filter((_, i) => i % 150 !== 3);
  const copyOf = ([, customer = "", , number = "", date = "", , currency = "", amount = ""]: string[], note = "") =>
    pdf(
      `Tarnbrook Linen Hire\n14 Tenter Lane\n\nInvoice ${number}\n${date}\n\n${customer}\nLinen hired and laundered: ${currency} ${amount}${note}`,
    );
  const twice = invoices.filter((_, i) => i % 200 === 40).slice(0, 2);
  return zip([
    ...invoices.map((i): [string, Buffer] => [`October/${i[3]} ${i[1]}.pdf`, copyOf(i)]),
    ...twice.map((i): [string, Buffer] => [`October/${i[3]} corrected.pdf`, copyOf(i, "\ncorrected")]),
    ["October/Terms of hire.pdf", pdf("Terms of hire")],
  ]);
};

test("a picture of each main view, from the sample firm", async ({ page, browser }) => {
  await signIn(page);
  const book = await openSampleFirm(page);
  await shot(page, "today");

  await page.goto(`/books/${book}/ledger`);
  await expect(page.getByText("is the ledger", { exact: true })).toBeVisible();
  await shot(page, "ledger");
  await page.getByLabel("Ledger file").setInputFiles("../../demo/ledger-messy.xlsx");
  await expect(page.getByRole("gridcell", { name: "Grand total" })).toBeVisible();
  await page.keyboard.press("n");
  await shot(page, "intake");

  await makeBook(page, "Northgate laundry");
  await takeIn(page, "../../demo/ledger-messy.xlsx");
  await page.getByLabel("Ledger file").setInputFiles("../../demo/ledger-messy-next.xlsx");
  await page.getByText("What changes 2").click();
  await expect(page.getByText("3 items changed")).toBeVisible();
  await shot(page, "changes");

  await makeBook(page, "Harbour laundry");
  await takeIn(page, "files/movements.csv");
  await prepareRound(page, "October movements");
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).click();
  await page.keyboard.press("3");
  await expect(page.getByRole("table", { name: "What payments settled" })).toBeVisible();
  await shot(page, "where-from");

  await page.goto(`/books/${book}/words?part=sender`);
  await page.getByLabel("Messages a minute").fill("60");
  await page.getByRole("button", { name: "Test" }).click();
  await expect(page.getByRole("row", { name: /Address ✓ in order/ })).toBeVisible();
  await page.getByRole("button", { name: "Fetch from a mailbox…" }).click();
  await page.getByRole("button", { name: "Add mailbox" }).scrollIntoViewIfNeeded();
  await shot(page, "senders");

  await page.goto(`/books/${book}/customers?card=FE01`);
  await expect(page.getByLabel("Name of contact 1")).toHaveValue("Ines Caldera");
  await shot(page, "customers");
  await page.keyboard.press("Escape");

  await page.goto(`/books/${book}/words?part=figures`);
  await expect(page.getByLabel("Last day of each age band")).toHaveValue("30, 60, 90");
  await shot(page, "figures");
  await page.goto(`/books/${book}/words`);
  await page.getByRole("button", { name: "Month-end statement", exact: true }).click();
  await expect(page.frameLocator('iframe[title="Message as it is read"]').getByText("Total outstanding")).toBeVisible();
  await shot(page, "words");

  await page.goto(`/books/${book}/words?part=layouts`);
  await page.getByLabel("Start from").click();
  await page.getByTitle("Balance confirmation", { exact: true }).click();
  await page.getByRole("button", { name: "Text", exact: true }).click();
  await page.getByRole("heading", { name: "Words & paper" }).click();
  await page.keyboard.press("s");
  await expect(page.getByRole("img", { name: /Reply to Tarnbrook/ })).toBeVisible();
  await shot(page, "layouts");

  await page.goto(`/books/${book}/rounds`);
  await page.getByLabel("What goes").click();
  await page.getByTitle("Reminders", { exact: true }).click();
  await prepareRound(page, "October reminders");
  await page.getByRole("button", { name: "Fernlea Hotels", exact: true }).click();
  await expect(
    page.frameLocator('iframe[title="Message to Fernlea Hotels"]').getByText("Perhaps this has escaped your attention"),
  ).toBeVisible();
  await page
    .getByRole("button", { name: /^Due date, row \d+: / })
    .first()
    .click();
  await expect(page.getByRole("dialog", { name: /^Due date, row \d+$/ })).toContainText("The file stays as it is");
  await shot(page, "source");
  await page.keyboard.press("Escape");

  await prepareRound(page, "October with copies");
  await page.getByLabel("Copies of invoices").click();
  await page.getByTitle("copies, each a file").click();
  await page.getByRole("link", { name: /^Copies: \d+ missing/ }).click();
  await expect(page.getByRole("heading", { name: "Copies" })).toBeVisible();
  await page.getByLabel("Add files").setInputFiles(fileOf("October.zip", "application/zip", october()));
  await expect(page.getByText(/files added\./)).toBeVisible();
  const copies = page.getByRole("table", { name: "Copies" });
  await copies
    .getByRole("row", { name: /In question/ })
    .first()
    .getByRole("button")
    .first()
    .click();
  await expect(page.getByRole("button", { name: /^This is the copy of / })).toBeVisible();
  await shot(page, "copies");

  await prepareRound(page, "October statements");
  await page.getByRole("button", { name: "Fernlea Hotels", exact: true }).click();
  const letter = page.frameLocator('iframe[title="Message to Fernlea Hotels"]');
  await expect(letter.getByText("Dear Ms Caldera,")).toBeVisible();
  await shot(page, "workbench");
  await page.keyboard.press("2");
  await expect(page.getByRole("img", { name: /Statement of account/ })).toBeVisible();
  await shot(page, "statement");
  await page.keyboard.press("1");
  await page.emulateMedia({ colorScheme: "dark" });
  await page.reload();
  await expect(letter.getByText("Dear Ms Caldera,")).toBeVisible();
  for (const marked of ["Fernlea Hill", "Fernlea Hotels", "Fernlea Quay House"]) {
    await page.getByRole("checkbox", { name: `Mark ${marked}`, exact: true }).check();
  }
  await page.getByRole("tab", { name: "Words" }).click();
  await page.getByText("This parcel alone").click();
  const own = page.getByRole("textbox", { name: "Message" });
  await own.getByText("With kind regards").click({ position: { x: 20, y: 8 } });
  await own.press("Home");
  await own.pressSequentially("As agreed on the telephone, half of it is due next week. ");
  await page.getByRole("button", { name: "Save for this parcel" }).click();
  await expect(page.getByRole("region", { name: "What differs from the wording" })).toContainText("As agreed on");
  await page.getByRole("region", { name: "What differs from the wording" }).scrollIntoViewIfNeeded();
  await shot(page, "one-parcel");
  await page.emulateMedia({ colorScheme: "light" });
  await page.reload();
  await page.getByRole("button", { name: /^Release 59 parcels/ }).click();
  await page.getByLabel("Type the number of parcels to release them").fill("59");
  await shot(page, "release");
  await page.getByRole("button", { name: "Release 59 parcels", exact: true }).click();
  await expect(page.getByText("59 of 59 done")).toBeVisible({ timeout: 300_000 });

  await page.goto(`/books/${book}/dispatch`);
  await page.getByRole("button", { name: "Fernlea Hotels" }).click();
  await expect(page.frameLocator('iframe[title="Message"]').getByText("Dear Ms Caldera,")).toBeVisible();
  await shot(page, "dispatch");
  await page.goto(`/books/${book}/postroom`);
  await expect(page.frameLocator('iframe[title="Message"]').getByText("Total outstanding")).toBeVisible();
  await page.getByRole("button", { name: "Drills" }).click();
  await page.getByRole("button", { name: "Begin" }).click();
  await expect(page.getByText(/after the message it answers .* once more/)).toBeVisible();
  await shot(page, "postroom");

  // A second person is asked for, and looks at what is to be released.
  await page.goto(`/books/${book}`);
  await page.getByRole("button", { name: /marta: settings/ }).click();
  await page.getByRole("menuitem", { name: "Who has this book" }).click();
  await page.getByLabel("Invite", { exact: true }).fill("joan");
  await page.getByRole("button", { name: "Invite" }).click();
  const address = await page.getByLabel("Address to pass on").inputValue();
  const theirs = await (await browser.newContext({ viewport: page.viewportSize() })).newPage();
  await theirs.goto(address);
  await theirs.getByLabel("A password of at least 10 characters").fill("linen and lavender");
  await theirs.getByRole("button", { name: "Open the book" }).click();
  await page.reload();
  await page.getByLabel(/A second person releases every round/).check();
  await page.goto(`/books/${book}/rounds`);
  await page.getByRole("link", { name: "October reminders", exact: true }).click();
  await expect(page.getByRole("button", { name: /^Release 59 parcels/ })).toBeVisible();
  await page.keyboard.press("r");
  await page.getByRole("button", { name: "Request release" }).click();
  await page.getByRole("button", { name: "Abbot’s Table", exact: true }).click();
  await page.keyboard.press("h");
  await expect(page.getByRole("row", { name: /^Held · 1/ })).toBeVisible();
  await theirs.goto(page.url());
  await expect(theirs.getByRole("button", { name: /^Release 58 parcels/ })).toBeVisible();
  await theirs.keyboard.press("r");
  await expect(theirs.getByRole("dialog", { name: "Release October reminders" })).toContainText(/Since then: marta/);
  await shot(theirs, "approval");
});
