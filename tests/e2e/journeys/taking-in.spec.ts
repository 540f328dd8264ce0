import { readFile, writeFile } from "node:fs/promises";
import { expect, test, type Locator, type Page } from "@playwright/test";
import { isPrepared, makeBook, signIn } from "../people";

// By keyboard nothing is hit while it moves: these are the journeys that have the movement the others do without.
test.use({ contextOptions: { reducedMotion: "no-preference" } });

const noticed = (page: Page) => page.getByRole("complementary", { name: "What was found" });
const chosenCell = (page: Page) => page.getByRole("gridcell", { selected: true });

/** Opens the file chooser by keyboard, from wherever the focus is on the ledger page. */
async function choose(page: Page, file: string): Promise<void> {
  const chooser = page.waitForEvent("filechooser");
  await page.getByRole("button", { name: "Take in a ledger file" }).focus();
  await page.keyboard.press("Enter");
  await (await chooser).setFiles(file);
  await expect(page.getByRole("grid", { name: "The file as it stands" })).toBeVisible();
}

/** Goes from finding to finding until one points at a cell with this text, in a row with that one. */
async function point(page: Page, cell: string, row = ""): Promise<void> {
  const chosenRow = page.getByRole("row").filter({ has: chosenCell(page) });
  for (let presses = 0; presses < 12; presses++) {
    await page.keyboard.press("n");
    await expect(chosenRow, "the row pointed at is there").not.toHaveText(/^\d+$/);
    if ((await chosenCell(page).textContent()) === cell && (await chosenRow.textContent())?.includes(row)) {
      return;
    }
  }
  throw new Error(`No finding points at “${cell}”.`);
}

async function put(page: Page, cell: string, right: string): Promise<void> {
  await point(page, cell);
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Corrected value")).toBeFocused();
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type(right);
  await page.keyboard.press("Enter");
  await expect(chosenCell(page)).toHaveText(right);
  await expect(page.getByRole("dialog")).toHaveCount(0);
}

test("a messy workbook becomes a clean ledger by the keyboard alone; a newer one is compared, kept and undone", async ({
  page,
}) => {
  await signIn(page);
  await makeBook(page, "Taking in");
  await page.getByRole("link", { name: "Ledger", exact: true }).focus();
  await page.keyboard.press("Enter");
  await choose(page, "../../demo/ledger-messy.xlsx");

  await test.step("the sheet with the ledger is found, with title and total lines in view", async () => {
    await expect(page.getByText("has the most known headings")).toBeVisible();
    await expect(page.getByRole("gridcell", { name: "Open items, Northgate laundry" })).toBeVisible();
    await expect(page.getByRole("gridcell", { name: "Grand total" })).toBeVisible();
    await expect(noticed(page)).toContainText("Rows set aside3");
    await expect(noticed(page)).toContainText("One total disagrees.");
  });

  await test.step("each finding leads to its cell, where it is put right", async () => {
    await put(page, "forty", "40.00");
    await put(page, "31/09/2026", "30/09/2026");
    await expect(noticed(page)).toContainText("3 totals agree with the rows.");
    await put(page, "marek@labedz", "marek@labedz.example");
    await put(page, "Hotel Labedz", "Hotel Łabędź");
  });

  await test.step("a row of nobody is left out, with a reason", async () => {
    await point(page, "", "T-21301");
    await page.keyboard.press("l");
    await page.keyboard.type("belongs to the other laundry");
    await page.keyboard.press("Enter");
    await expect(noticed(page)).toContainText("Rows left out by hand1");
    await expect(noticed(page)).toContainText("3 totals agree with the rows.");
    await expect(page.getByRole("dialog"), "it gives the focus back before it is gone").toHaveCount(0);
  });

  await test.step("two codes with one address are made one customer", async () => {
    await page.getByRole("button", { name: "Merge", exact: true }).focus();
    await page.keyboard.press("Enter");
    await expect(page.getByRole("dialog", { name: "Merge OL-01 and OL01" })).toBeVisible();
    await page.getByRole("button", { name: "Merge customers" }).focus();
    await page.keyboard.press("Enter");
    await expect(page.getByText("14 rows · 8 customers")).toBeVisible();
  });

  await test.step("the clean ledger is kept", async () => {
    await expect(noticed(page)).toContainText("Rows set aside0");
    await page.keyboard.press("k");
    await expect(page.getByText("is the ledger", { exact: true })).toBeVisible();
    await expect(page.getByText("14 rows of 8 customers")).toBeVisible();
    await expect(page.getByText("6 corrections")).toBeVisible();
  });

  await test.step("a newer file keeps what was put right, and shows what changed before it is kept", async () => {
    await choose(page, "../../demo/ledger-messy-next.xlsx");
    await expect(noticed(page)).toContainText("Rows set aside0");
    await page.keyboard.press("2");
    await expect(page.getByText("3 items changed")).toBeVisible();
    await expect(
      page.getByRole("row", { name: /^altered BE02 Beacon Lodge T-20790 .* £480\.00 £180\.00$/ }),
    ).toBeVisible();
    await expect(page.getByRole("row", { name: /^settled AB01 .* T-21288 .* £670\.80$/ })).toBeVisible();
    await expect(page.getByRole("row", { name: /^new PR01 Priory Guest Rooms T-21401 .* £318\.60$/ })).toBeVisible();
    await page.keyboard.press("k");
    await expect(page.getByRole("heading", { name: "ledger-messy-next.xlsx, Open items" })).toBeVisible();
  });

  await test.step("and is undone as a whole", async () => {
    await page.getByRole("button", { name: "Undo" }).focus();
    await page.keyboard.press("Enter");
    const question = page.getByRole("dialog", { name: "Undo ledger-messy-next.xlsx?" });
    await expect(question.getByRole("button", { name: "Undo" })).toBeFocused();
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { name: "ledger-messy.xlsx, Open items" })).toBeVisible();
  });
});

test("cells pasted from a spreadsheet are taken like a file", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Pasting");
  await page.getByRole("link", { name: "Ledger", exact: true }).click();
  await expect(page.getByRole("button", { name: "Take in a ledger file" })).toBeVisible();
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData("text/plain", text);
    document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true }));
  }, "Account\tName\tDate\tBalance\nH1\tInn at Kell\t31/10/2026\t1.234,50\n");
  await expect(page.getByRole("heading", { name: /^Pasted .*\.tsv$/ })).toBeVisible();
  await expect(noticed(page)).toContainText("£1,234.50");
});

test("a reading is changed, seen at once, saved as a file and read by again", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Readings");
  await page.getByRole("link", { name: "Ledger", exact: true }).click();
  await choose(page, "../awkward/dates-that-leave-it-open.csv");
  await expect(noticed(page)).toContainText("day first was assumed");
  await page.getByRole("button", { name: "day first, as set" }).click();
  await expect(page.getByRole("button", { name: "month first, set by you" })).toBeVisible();
  await expect(noticed(page)).not.toContainText("was assumed");
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Reading", exact: true }).click();
  await page.getByRole("menuitem", { name: "Save this reading as a file" }).click();
  const saved = await readFile(await (await download).path(), "utf8");
  expect((JSON.parse(saved) as { columns: unknown[] }).columns).toContainEqual(
    expect.objectContaining({ heading: "Date", meaning: "date", order: "month-first" }),
  );
});

test("a customer list is looked at, kept, and shows on the cards", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Cards");
  await page.getByRole("link", { name: "Customers", exact: true }).click();
  await expect(page.getByText("Nobody yet.")).toBeVisible();
  await page.getByLabel("Customer list").setInputFiles("../../demo/customers.csv");
  await expect(page.getByText("What would be kept")).toBeVisible();
  await page.getByRole("button", { name: /^Keep 68 customers/ }).click();
  await page.getByLabel("Search customers").fill("caldera");
  await expect(page.getByText("2 customers")).toBeVisible();
  await page.getByRole("button", { name: "Fernlea Hotels" }).click();
  const card = page.getByRole("dialog", { name: "Customer card" });
  await expect(card.getByLabel("Name of contact 1")).toHaveValue("Ines Caldera");
  await card.getByLabel("E-mail of contact 1").fill("ines@fernlea.example");
  await card.getByRole("button", { name: "Save card" }).click();
  await expect(page.getByRole("cell", { name: "ines@fernlea.example +1" })).toBeVisible();
});

test("who goes elsewhere as soon as a list is kept is not fetched back", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Elsewhere meanwhile");
  await page.getByRole("link", { name: "Customers", exact: true }).click();
  await page.getByLabel("Customer list").setInputFiles("files/group-cards.csv");
  await expect(page.getByRole("button", { name: /^Keep / })).toBeEnabled();
  // The list is kept, but the page does not know all it wants to know before it leads on.
  let answer = () => {};
  const elsewhere = new Promise<void>((resolve) => (answer = resolve));
  await page.route(/\/api\/books\/\d+\/ledger$/, async (route) => {
    await elsewhere;
    await route.continue();
  });
  const asked = page.waitForRequest(/\/api\/books\/\d+\/ledger$/);
  await page.getByRole("button", { name: /^Keep / }).click();
  await asked;
  await page.getByRole("link", { name: "Words & paper" }).click();
  await page.getByRole("tab", { name: "Figures" }).click();
  await page.getByLabel("Level 2, days past due").fill("25");
  answer();
  await expect(page.getByText(/^\d+ customers taken in\.$/)).toBeVisible();
  await page.getByRole("button", { name: "Save rules" }).click();
  await expect(page.getByText("Rounds that are prepared from now on go by it.")).toBeVisible();
  await page.getByRole("link", { name: "Customers", exact: true }).click();
  await expect(page.getByRole("button", { name: "Fernlea Hotels" })).toBeVisible();
});

test("fifty thousand customers are scrolled, sorted and searched without a blank row", async ({ page }, info) => {
  await signIn(page);
  await makeBook(page, "Many");
  const list = info.outputPath("customers.csv");
  const lines = Array.from({ length: 50_000 }, (_, i) => {
    const n = String(i).padStart(5, "0");
    return `C${n},Inn ${n},keeper${i}@inn.example`;
  });
  await writeFile(list, ["Code,Name,E-mail", ...lines].join("\n"));
  await page.getByRole("link", { name: "Customers", exact: true }).click();
  await page.getByLabel("Customer list").setInputFiles(list);
  await page.getByRole("button", { name: /^Keep 50,000 customers/ }).click();
  await expect(page.getByText("50,000 customers", { exact: true })).toBeVisible();
  const scroller = page.getByRole("table").locator("xpath=..");
  for (const share of [1, 0.5, 0.25, 0]) {
    await scroller.evaluate((e, s) => e.scrollTo({ top: (e.scrollHeight - e.clientHeight) * s }), share);
    // Where one has scrolled to, every row in view fills, and it is the right one.
    await expect
      .poll(() =>
        scroller.evaluate((e) => {
          const view = e.getBoundingClientRect();
          const names = Array.from(e.querySelectorAll("tbody tr.pick"))
            .filter((r) => {
              const at = r.getBoundingClientRect();
              return at.top >= view.top + 24 && at.bottom <= view.bottom;
            })
            .map((r) => r.querySelector("button")?.textContent ?? "");
          const first = Number(names[0]?.slice(4));
          return {
            many: names.length > 20,
            inOrder: names.every((name, i) => Number(name.slice(4)) === first + i && name !== ""),
            share: Math.round((first / (50_000 - names.length)) * 100) / 100,
          };
        }),
      )
      .toEqual({ many: true, inOrder: true, share });
  }
  await page.getByRole("button", { name: "Code" }).click();
  await page.getByRole("button", { name: "Code" }).click();
  await expect(scroller.locator("tbody button").first()).toHaveText("Inn 49999");
  await page.getByLabel("Search customers").fill("keeper31234@");
  await expect(page.getByText("1 customer", { exact: true })).toBeVisible();
  await expect(page.getByRole("button", { name: "Inn 31234" })).toBeVisible();
});

test("a messy workbook in another language is read at sight: six clicks from the file to the first statement", async ({
  page,
}) => {
  await signIn(page);
  await makeBook(page, "At sight");
  let clicks = 0;
  const click = async (target: Locator) => {
    clicks++;
    await target.click();
  };
  await click(page.getByRole("button", { name: "Take in a file" }));
  const chooser = page.waitForEvent("filechooser");
  await click(page.getByRole("button", { name: "Take in a ledger file" }));
  await (await chooser).setFiles("files/avoimet-laskut.xlsx");

  await test.step("no column has to be touched, and what matters is in view", async () => {
    await expect(noticed(page)).toContainText("4 totals agree with the rows.");
    await expect(noticed(page)).toContainText("£2,364.15");
    await expect(noticed(page)).toContainText("One column is hidden in the workbook: “Viikko”.");
    await expect(page.getByText("6 rows · 3 customers")).toBeVisible();
    await expect(page.getByRole("button", { name: "and 3 more columns, kept for slots" })).toBeVisible();
    for (const meaning of ["Customer code", "Due date", "Outstanding", "E-mail"]) {
      await expect(page.getByRole("columnheader").filter({ hasText: meaning })).toBeInViewport({ ratio: 1 });
    }
    await expect(page.getByRole("gridcell", { name: "1,500.00" }).first(), "as the cell shows it").toBeVisible();
  });

  await click(page.getByRole("button", { name: /^Keep 6 rows/ }));
  await expect(page.getByText("is the ledger", { exact: true })).toBeVisible();
  await click(page.getByRole("link", { name: "Rounds", exact: true }));
  await click(page.getByRole("button", { name: "Prepare a round" }));
  await isPrepared(page);
  await click(page.getByRole("tab", { name: /^Statement/ }));
  await expect(page.getByText("Kellin majatalo").first()).toBeVisible();
  expect(clicks).toBeLessThanOrEqual(6);
});

test("a file in which two columns could be the amount is settled by one click", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Which amount");
  await page.getByRole("link", { name: "Ledger", exact: true }).click();
  await choose(page, "../awkward/two-that-could-both-be-the-amount.csv");
  await expect(page.getByRole("button", { name: /^Keep / })).toBeDisabled();
  await expect(noticed(page)).toContainText("Which column is the outstanding amount?");
  await noticed(page).getByRole("button", { name: "Quex: 736.10 in 4 rows" }).click();
  await expect(noticed(page)).toContainText("£736.10");
  await expect(page.getByRole("button", { name: /^Keep 4 rows/ })).toBeEnabled();

  await test.step("and what was said holds for another file of the book", async () => {
    await page.getByRole("button", { name: /^Keep 4 rows/ }).click();
    await expect(page.getByText("is the ledger", { exact: true })).toBeVisible();
    const next =
      "Zorb,Client,Document,Issued,Quex,Week\n11.17,Inn at Kell,T-20900,01/10/2026,100.10,40\n" +
      "95.40,Inn at Kell,T-20901,02/10/2026,80.20,40\n45.33,Old Mill House,T-20902,03/10/2026,20.50,40\n";
    const chooser = page.waitForEvent("filechooser");
    await page.getByRole("button", { name: "Take in a ledger file" }).click();
    await (await chooser).setFiles({ name: "next.csv", mimeType: "text/csv", buffer: Buffer.from(next) });
    await expect(noticed(page)).toContainText("£200.80");
    await expect(page.getByText("as you said in another file")).toBeVisible();
  });
});
