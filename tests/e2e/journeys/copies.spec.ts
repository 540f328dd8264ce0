import { expect, test, type Page } from "@playwright/test";
import { pdf, zip } from "../copies";
import { fileOf, greetAnybody, makeBook, prepareRound, signIn, takeIn } from "../people";

const customers = Array.from({ length: 40 }, (_, i) => `Inn ${String(i + 1).padStart(2, "0")}`);
const numberOf = (customer: number, invoice: number) => `TL-${10_000 + customer * 10 + invoice}`;
const copies = (page: Page) => page.getByRole("table", { name: "Copies" });
const shown = (page: Page) => page.getByRole("article", { name: /^Parcel of / });

test("eighty copies and one PDF of forty go each with the right message", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Copies");
  const rows = customers.flatMap((name, c) =>
    [1, 2, 3].map(
      (i) => `I${c},${name},Invoice,${numberOf(c, i)},2026-09-01,2026-10-01,${c + i}.00,desk${c}@inns.example`,
    ),
  );
  const ledger = ["Code,Name,Kind,Number,Date,Due,Outstanding,E-mail", ...rows].join("\n");
  await takeIn(page, fileOf("ledger.csv", "text/csv", ledger));
  await prepareRound(page, "October");
  await page.getByLabel("Copies of invoices").click();
  await page.getByTitle("copies, each a file").click();
  await page.getByRole("link", { name: /^Copies: 120 missing/ }).click();
  await expect(page.getByRole("heading", { name: "Copies" })).toBeVisible();

  // Two of each inn in a ZIP, among them one that is named for nothing and one that stands twice; the third in one PDF of all.
  const files = customers.flatMap((name, c): [string, Buffer][] =>
    [1, 2].map((i) => [
      c === 0 && i === 1 ? "October/scan.pdf" : `October/${name} ${numberOf(c, i)}.pdf`,
      pdf(c === 0 && i === 1 ? "cannot be read" : `Invoice ${numberOf(c, i)}\n${name}`),
    ]),
  );
  await page
    .getByLabel("Add files")
    .setInputFiles(
      fileOf(
        "October.zip",
        "application/zip",
        zip([...files, [`again/${numberOf(1, 1)}.pdf`, pdf(`Invoice ${numberOf(1, 1)}, another one`)]]),
      ),
    );
  await expect(page.getByText("81 files added.")).toBeVisible();
  await expect(page.getByText("The names are read as Inn * {number}")).toBeVisible();
  await page
    .getByLabel("Add files")
    .setInputFiles(
      fileOf(
        "scans.pdf",
        "application/pdf",
        pdf(...customers.flatMap((name, c) => [`Invoice ${numberOf(c, 3)}\n${name}`, "terms of hire"])),
      ),
    );
  await expect(page.getByText("40 files added.")).toBeVisible();
  await expect(page.getByRole("radiogroup", { name: "Which copies" })).toContainText(
    /In question 1.*Missing 1.*Matched 118.*Left over 1/,
  );

  // Two are settled: which of two files it is, by a click; and what the scan is a copy of, by its number.
  await copies(page)
    .getByRole("row", { name: /In question/ })
    .getByRole("button", { name: `Inn 02 ${numberOf(1, 1)}.pdf` })
    .click();
  await page.getByRole("button", { name: `This is the copy of ${numberOf(1, 1)}` }).click();
  await expect(page.getByText("In question 0")).toBeVisible();
  await copies(page).getByRole("button", { name: "scan.pdf" }).click();
  await page.keyboard.press("a");
  await page.getByLabel("Number or customer").fill(numberOf(0, 1));
  await page.getByLabel("Number or customer").press("Enter");
  await expect(page.getByText("Missing 0")).toBeVisible();

  await page.getByRole("link", { name: "October", exact: true }).click();
  await expect(page.getByLabel("Copies of invoices")).toBeVisible();
  await greetAnybody(page, 40);
  await page.keyboard.press("1");
  await page.getByRole("button", { name: "Inn 01", exact: true }).click();
  await expect(shown(page)).toContainText(`scan.pdf`);
  await expect(shown(page)).toContainText(`scans, ${numberOf(0, 3)}.pdf`);
  await page.getByRole("button", { name: /^Release 40 parcels/ }).click();
  await page.getByLabel("Type the number of messages").fill("40");
  await page.getByRole("button", { name: "Release 40 messages" }).click();
  await expect(page.getByText("40 of 40 sent")).toBeVisible();
  await page.getByRole("link", { name: "Dispatch log" }).click();
  await page
    .getByRole("button", { name: /Inn 02/ })
    .first()
    .click();
  await expect(page.getByText(`Inn 02 ${numberOf(1, 1)}.pdf`)).toBeVisible();
  await expect(page.getByText(`scans, ${numberOf(1, 3)}.pdf`)).toBeVisible();
});
