import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import { scanned } from "../documents";
import { choose, fileOf, makeBook, openLayouts, ownLayout, prepareRound, signIn, takeIn } from "../people";

const message = (page: Page) => page.getByRole("textbox", { name: "Message" });
const reader = (page: Page) => page.getByRole("region", { name: "Reader" });
const read = (page: Page) => page.frameLocator('iframe[title="Message as it is read"]').locator("body");

/** Begins an empty wording of the book. */
async function beginEmpty(page: Page, name: string): Promise<void> {
  await page.getByRole("link", { name: "Words & paper" }).click();
  await page.getByLabel("Name of the new wording").fill(name);
  await page.getByRole("button", { name: "Empty" }).click();
  await expect(page.getByRole("button", { name, exact: true })).toHaveAttribute("aria-current", "true");
}

/** Puts a slot where one writes, by a stroke and the beginning of its label. */
async function slot(page: Page, typed: string, label: string): Promise<void> {
  await page.keyboard.type(` /${typed}`);
  await expect(page.getByRole("option", { selected: true })).toContainText(label);
  await page.keyboard.press("Enter");
}

test("a wording is made from nothing, with a word by a value, a condition, a table, a button, a code and a signature", async ({
  page,
}) => {
  await openLayouts(page, "Words from nothing");
  await ownLayout(page);
  await page.getByRole("button", { name: "How to pay", exact: true }).click();
  await page.getByRole("textbox", { name: "Page to pay on" }).pressSequentially("https://pay.example/now");
  await page.getByRole("button", { name: "Save layout" }).click();
  await page.getByRole("button", { name: "Assign", exact: true }).click();

  await beginEmpty(page, "From nothing");
  await page.getByRole("textbox", { name: "Subject" }).click();
  await page.keyboard.type("Your account,");
  await slot(page, "month of", "Month of the statement");
  await message(page).click();
  await page.keyboard.type("Good day,");
  await page.keyboard.press("Enter");

  await test.step("a word by the number of invoices", async () => {
    await page.keyboard.type("you have open ");
    await page.getByRole("button", { name: "Put a choice of a word into the message" }).click();
    await page.getByRole("button", { name: "invoice / invoices, by the number of open invoices" }).click();
    await page.keyboard.press("Escape");
    await message(page).getByText("Good day,").click();
    await page.keyboard.press("ControlOrMeta+End");
    await page.keyboard.type(" with us.");
    await expect(read(page)).toContainText("you have open invoices with us.");
  });

  await test.step("a sentence for one round of deliveries", async () => {
    await page.keyboard.press("Enter");
    await page.keyboard.type("Your van comes on Monday.");
    await choose(page, "When words of the message stand", "by a value or a column");
    const dialog = page.getByRole("dialog");
    await dialog.getByLabel("Value or column").fill("round");
    await page.getByTitle("Round", { exact: true }).last().click();
    await dialog.getByLabel("Text to compare with").fill("n1");
    await expect(dialog.getByRole("status")).toHaveText("The words stand where “Round” is “n1”.");
    await dialog.getByRole("button", { name: "Put the condition" }).click();
    await expect(message(page).locator("[data-when=slot]")).toHaveText("Your van comes on Monday.");
  });

  await test.step("a table with columns of its own, a button, a code and a signature", async () => {
    await message(page).getByText("Your van comes on Monday.").click();
    await page.keyboard.press("ControlOrMeta+End");
    await page.keyboard.press("Enter");
    await slot(page, "table", "Table of items");
    await page.keyboard.press("Enter");
    await slot(page, "payment b", "Payment button");
    await page.keyboard.press("Enter");
    await slot(page, "payment c", "Payment code");
    await page.keyboard.press("Enter");
    await slot(page, "sig", "Signature");
    await message(page).getByRole("button", { name: "Table of items" }).click();
    await page.getByLabel("Columns of the table").click();
    await page.getByTitle("Number", { exact: true }).click();
    await page.getByTitle("Open", { exact: true }).click();
    await page.keyboard.press("Escape");
    await expect(message(page).getByRole("button", { name: "Table of items, 2 columns" })).toBeVisible();
  });

  await test.step("the reader shows it for one customer and another", async () => {
    await reader(page).getByRole("button", { name: "longest" }).click();
    await expect(read(page).getByRole("columnheader")).toHaveText(["Number", "Open"]);
    await expect(read(page).getByRole("link", { name: "Pay online" })).toHaveAttribute(
      "href",
      "https://pay.example/now",
    );
    await expect
      .poll(() => scanned(read(page).getByRole("img", { name: "https://pay.example/now" })))
      .toBe("https://pay.example/now");
    await expect(read(page)).toContainText("Words from nothing");
    await expect(read(page)).toContainText("Your van comes on Monday.");
    await choose(page, "Customer in the preview", "Sørlandet Łódź Spa");
    await expect(read(page)).toContainText("you have open invoice with us.");
    await expect(read(page)).not.toContainText("Your van");
    await choose(page, "Customer in the preview", "Paid Ahead Hotel");
    await expect(read(page).getByRole("link")).toHaveCount(0);
    await expect(read(page).getByRole("img")).toHaveCount(0);
    await reader(page).getByText("plain text").click();
    await expect(reader(page).getByLabel("Plain text", { exact: true })).toContainText("Good day,");
  });

  await page.getByRole("button", { name: "Save wording" }).click();
  await expect(page.getByText("“From nothing” as it is in use")).toBeVisible();
  await page.reload();
  await page.getByRole("button", { name: "From nothing", exact: true }).click();
  await expect(
    message(page).getByRole("button", { name: /invoice \/ invoices by Number of open invoices/ }),
  ).toBeVisible();
  await expect(page.getByText("changed, not in use yet")).toHaveCount(0);
});

test("a wording is made with the keyboard alone", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Words by keyboard");
  await takeIn(page, "files/open-items.csv");
  await beginEmpty(page, "By keyboard");
  await page.getByRole("textbox", { name: "Subject" }).focus();
  await page.keyboard.type("Statement");
  await slot(page, "statement da", "Statement date");
  // Past the tools of the message into it.
  for (let i = 0; i < 30 && !(await message(page).evaluate((e) => e === document.activeElement)); i++) {
    await page.keyboard.press("Tab");
  }
  await expect(message(page)).toBeFocused();
  await page.keyboard.press("ControlOrMeta+B");
  await page.keyboard.type("Please pay");
  await page.keyboard.press("ControlOrMeta+B");
  await slot(page, "overdue", "Overdue");
  await page.keyboard.type(" soon.");
  await page.keyboard.press("ControlOrMeta+Z");
  await page.keyboard.press("ControlOrMeta+Shift+Z");
  // Back to the condition, which stands two tools before the text.
  await page.keyboard.press("Shift+Tab");
  await page.keyboard.press("Shift+Tab");
  await expect(page.getByLabel("When words of the message stand")).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(message(page).locator("[data-when=overdue]")).toContainText("Please pay");
  await expect(read(page).locator("strong")).toHaveText("Please pay");
});

test("what is pasted from a word processor comes out clean", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await signIn(page);
  await makeBook(page, "Words pasted");
  await takeIn(page, "files/open-items.csv");
  await beginEmpty(page, "Pasted");
  await page.evaluate(async () => {
    const html =
      '<html xmlns:o="urn:x"><head><style>p{color:red}</style></head><body><p class="MsoNormal"><span style="font-size:11pt;' +
      'color:#1f3864">Please pay <b>by transfer</b>.<o:p></o:p></span></p><p class="MsoListParagraph"><span ' +
      'style="mso-list:Ignore">·&nbsp; </span>Sheets</p><p class="MsoNormal"><a href="javascript:x()">here</a></p></body></html>';
    await navigator.clipboard.write([
      new ClipboardItem({
        "text/html": new Blob([html], { type: "text/html" }),
        "text/plain": new Blob(["Please pay by transfer."], { type: "text/plain" }),
      }),
    ]);
  });
  await message(page).click();
  await page.keyboard.press("ControlOrMeta+V");
  await expect(message(page).locator("strong")).toHaveText("by transfer");
  await expect(message(page).getByRole("listitem")).toHaveText("Sheets");
  await expect(message(page).locator("[style], [class*=Mso], a")).toHaveCount(0);
});

test("a column that is called otherwise in the next file is shown, and put right in one step", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Words with a column");
  await takeIn(page, "files/open-items.csv");
  await beginEmpty(page, "With a column");
  await message(page).click();
  await page.keyboard.type("Your van is");
  await page.keyboard.type(" /round");
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("option", { selected: true })).toHaveText("Round N1");
  await page.keyboard.press("Enter");
  await page.keyboard.type(".");
  await page.getByRole("button", { name: "Save wording" }).click();
  await expect(page.getByText("“With a column” as it is in use")).toBeVisible();
  const rows = "EL03,Eldwick Manor,Invoice,T-40001,25/10/2026,24/11/2026,GBP,310.00,a@eldwick.example,N1";
  await takeIn(
    page,
    fileOf(
      "november.csv",
      "text/csv",
      `Customer code,Customer name,Kind,Number,Date,Due date,Currency,Outstanding,E-mail,Rounds\n${rows}\n`,
    ),
  );
  await page.getByRole("link", { name: "Words & paper" }).click();
  await page.getByRole("button", { name: "With a column · a column is gone" }).click();
  await expect(page.getByText("Your files have no column “Round” any more, and this wording uses it.")).toBeVisible();
  await page.getByRole("button", { name: "Use “Rounds”" }).click();
  await expect(read(page)).toContainText("Your van is N1.");
  await page.getByRole("button", { name: "Save wording" }).click();
  await expect(page.getByRole("button", { name: "With a column", exact: true })).toBeVisible();
});

test("what catches the eye is told before anything leaves, and can be meant so", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Words that catch the eye");
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await page.keyboard.press("4");
  await message(page).getByText("With kind regards").click();
  await page.keyboard.press("Home");
  await page.keyboard.type("Please pay the the fee of £12.00 to Gruffydd’s Kitchen. ");
  await page.getByRole("button", { name: "Save wording" }).click();
  const line = page.getByText(/In \d messages? something catches the eye\./);
  await expect(line).toBeVisible();
  const remarks = page.getByRole("list", { name: "What catches the eye" });
  await expect(remarks.getByRole("listitem").first()).toContainText(
    "It names “Gruffydd’s Kitchen”, which is another customer.",
  );
  await expect(remarks).toContainText("A word stands twice: “the the”.");
  await page.getByRole("button", { name: "Look at the words…" }).click();
  const dialog = page.getByRole("dialog");
  const fee = dialog.getByRole("listitem").filter({ hasText: "The amount £12.00 was typed" });
  await fee.getByRole("button", { name: "It is meant so" }).click();
  await expect(fee).toHaveCount(0);
  await page.keyboard.press("Escape");
  await expect(remarks).not.toContainText("The amount £12.00");
  await expect(remarks).toContainText("the the");
});

test("an earlier version is seen beside the one in use, and put back", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Versions of words");
  await takeIn(page, "files/open-items.csv");
  await page.getByRole("link", { name: "Words & paper" }).click();
  await message(page).getByText("With kind regards").click();
  await page.keyboard.press("Home");
  await page.keyboard.type("Please mind our new account. ");
  await page.getByRole("button", { name: "Save wording" }).click();
  await expect(page.getByText("as it is in use")).toBeVisible();
  await page.getByRole("button", { name: "Versions…" }).click();
  const dialog = page.getByRole("dialog", { name: "Versions of “Month-end statement”" });
  const versions = dialog.getByRole("navigation", { name: "Versions" }).getByRole("button");
  await expect(versions).toHaveCount(2);
  await expect(versions.first()).toContainText("message · in use");
  const words = "Please mind our new account.";
  await expect(dialog.getByRole("textbox", { name: "Message in use" })).toContainText(words);
  await expect(dialog.getByRole("textbox", { name: "Message of this version" })).not.toContainText(words);
  await dialog.getByRole("button", { name: "Put it back" }).click();
  await expect(message(page)).not.toContainText(words);
  await page.getByRole("button", { name: "Save wording" }).click();
  await expect(page.getByText("as it is in use")).toBeVisible();
  await page.getByRole("button", { name: "Versions…" }).click();
  await expect(versions).toHaveCount(3);
});

test("which wording goes is told with its reason, and one picked for the round goes to all", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Words of each");
  await takeIn(page, "files/open-items.csv");
  await prepareRound(page, "October");
  const inUse = page.getByRole("list", { name: "Messages by wording" });
  await expect(inUse).toHaveText("3 with Month-end statement");
  await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
  await page.keyboard.press("4");
  await expect(page.getByText("“Month-end statement”: the book’s for statements.")).toBeVisible();
  await choose(page, "Wording", "Reminder 1, friendly, for all");
  await expect(inUse).toHaveText("3 with Reminder 1, friendly");
  await expect(page.getByText("“Reminder 1, friendly”: picked for this round.")).toBeVisible();
  await choose(page, "Wording", "as set for each");
  await expect(page.getByText("“Month-end statement”: the book’s for statements.")).toBeVisible();
});

for (const tone of ["light", "dark"] as const) {
  test(`the messages of a new book read well at any width, in ${tone} tones`, async ({ page, context }) => {
    await signIn(page);
    await makeBook(page, `Words in ${tone} tones`);
    await takeIn(page, "files/open-items.csv");
    const book = /books\/(\d+)/.exec(page.url())?.[1] ?? "";
    const wordings = (await (await page.request.get(`/api/books/${book}/wordings/ready-made`)).json()) as {
      purpose: string;
      wording: { name: string; language: string; subject: string; body: string };
    }[];
    expect(wordings.length).toBeGreaterThan(40);
    const alone = await context.newPage();
    await alone.emulateMedia({ colorScheme: tone });
    for (const { wording, purpose } of wordings) {
      const shown = await page.request.post(
        `/api/books/${book}/wordings/preview?customer=EL03${purpose.startsWith("reminder") ? "&level=1" : ""}`,
        { data: wording, headers: { "X-Rendal": "1" } },
      );
      expect(shown.ok(), wording.name).toBe(true);
      const { message: html, remarks } = (await shown.json()) as { message: string; remarks: unknown[] };
      expect(remarks, wording.name).toEqual([]);
      for (const width of [360, 800]) {
        await alone.setViewportSize({ width, height: 800 });
        await alone.setContent(html.replace(/<meta http-equiv="Content-Security-Policy"[^>]*>/, ""));
        expect(await alone.evaluate(() => document.documentElement.scrollWidth), `${wording.name} at ${width}`).toBe(
          width,
        );
      }
      const found = await new AxeBuilder({ page: alone })
        .withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"])
        .analyze();
      expect(found.violations, wording.name).toEqual([]);
    }
    await alone.close();
  });
}
