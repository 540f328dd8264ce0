import { mkdirSync, writeFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { pdf, zip } from "../copies";
import { fileOf, greetAnybody, makeBook, prepareRound, signIn, takeIn } from "../people";

const customers = Array.from({ length: 40 }, (_, i) => `Inn ${String(i + 1).padStart(2, "0")}`);
const numberOf = (customer: number, invoice: number) => `TL-${10_000 + customer * 10 + invoice}`;
const copies = (page: Page) => page.getByRole("table", { name: "Copies" });
const shown = (page: Page) => page.getByRole("article", { name: /^Parcel of / });

test("eighty copies and one PDF of forty: two are settled, one parcel changed, three rehearsed, ten go, then the rest", async ({
  page,
}) => {
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

  // One customer gets words of its own, and its manager a copy.
  await page.keyboard.press("t");
  const recipients = page.getByRole("dialog", { name: "Recipients of Inn 01" });
  await recipients.getByLabel("Copy", { exact: true }).fill("manager@inns.example");
  await recipients.getByLabel("Copy", { exact: true }).press("Enter");
  await recipients.getByRole("button", { name: "Save recipients" }).click();
  await expect(recipients).toBeHidden();
  await page.keyboard.press("4");
  await shown(page).getByText("This parcel alone").click();
  await shown(page).getByRole("textbox", { name: "Message" }).press("Control+End");
  await shown(page).getByRole("textbox", { name: "Message" }).pressSequentially(" As agreed on the telephone.");
  await shown(page).getByRole("button", { name: "Save for this parcel" }).click();
  await expect(shown(page)).toContainText("its own recipients and words");

  // Three are rehearsed, and seen in the postroom as they will go.
  await page.keyboard.press("Escape");
  await page.keyboard.press("e");
  const rehearsal = page.getByRole("dialog", { name: "Rehearse October" });
  await rehearsal.getByLabel("To", { exact: true }).fill("marta@tarnbrook.example");
  await rehearsal.getByRole("button", { name: "Send 3 rehearsals" }).click();
  await expect(rehearsal.getByRole("button", { name: "I have looked at it" })).toHaveCount(3);
  await page.keyboard.press("Escape");
  await page.getByRole("link", { name: /^Postroom/ }).click();
  const rehearsed = page.getByRole("row", { name: /marta@tarnbrook\.example.*Rehearsal: / });
  await expect(rehearsed).toHaveCount(3);
  await rehearsed.first().getByRole("button").first().click();
  await expect(
    page.getByRole("article", { name: /^Rehearsal: / }).getByRole("link", { name: /(TL-\d+|scan)\.pdf/ }),
  ).toHaveCount(3);

  // The marked ten go; the rest stays ready, and goes later.
  await page.getByRole("link", { name: "Rounds", exact: true }).click();
  await page.getByRole("link", { name: "October", exact: true }).click();
  for (const name of customers.slice(0, 10)) {
    await page.getByRole("checkbox", { name: `Mark ${name}` }).check();
  }
  const marked = page.getByRole("region", { name: "Marked parcels" });
  await expect(marked).toContainText("10 marked");
  await marked.getByRole("button", { name: /^Release 10/ }).click();
  const release = page.getByRole("dialog", { name: "Release October" });
  await expect(release).toContainText("30 ready");
  await release.getByRole("button", { name: "Release 10 messages" }).click();
  await expect(page.getByText("10 of 10 sent")).toBeVisible();
  await expect(page.getByRole("row", { name: /^Ready · 30/ })).toBeVisible();
  await page.getByRole("button", { name: /^Release 30 parcels/ }).click();
  await page.getByLabel("Type the number of messages").fill("30");
  await page.getByRole("button", { name: "Release 30 messages" }).click();
  await expect(page.getByText("40 of 40 sent")).toBeVisible();

  // The log opens on the very files.
  await page.getByRole("link", { name: "Dispatch log" }).click();
  await page.getByLabel("Search the log").fill("Inn 02");
  await page
    .getByRole("button", { name: /Inn 02/ })
    .first()
    .click();
  const copy = page.getByRole("link", { name: `Inn 02 ${numberOf(1, 1)}.pdf` });
  const served = await page.request.get((await copy.getAttribute("href")) ?? "");
  expect(Buffer.compare(await served.body(), pdf(`Invoice ${numberOf(1, 1)}\nInn 02`))).toBe(0);
  await expect(page.getByRole("link", { name: `scans, ${numberOf(1, 3)}.pdf` })).toBeVisible();
  await page.getByLabel("Search the log").fill("manager@inns.example");
  await expect(page.getByText("1 entry")).toBeVisible();
  await expect(page.frameLocator('iframe[title="Message"]').getByText("As agreed on the telephone.")).toBeVisible();
});

test("copies come in a folder or are dropped, and one is dragged onto the invoice that it is of", async ({
  page,
}, info) => {
  await signIn(page);
  await makeBook(page, "Copies by hand");
  const ledger = [
    "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail",
    ...[1, 2, 3].map((i) => `I1,Inn 01,Invoice,TL-100${i},2026-09-01,2026-10-01,${i}.00,desk@inns.example`),
  ].join("\n");
  await takeIn(page, fileOf("ledger.csv", "text/csv", ledger));
  await prepareRound(page, "October");
  await page.getByLabel("Copies of invoices").click();
  await page.getByTitle("copies, each a file").click();
  await page.getByRole("link", { name: /^Copies: 3 missing/ }).click();

  const folder = info.outputPath("October");
  mkdirSync(`${folder}/Inns`, { recursive: true });
  writeFileSync(`${folder}/TL-1001.pdf`, pdf("Invoice TL-1001"));
  writeFileSync(`${folder}/Inns/TL-1002.pdf`, pdf("Invoice TL-1002"));
  await page.getByLabel("Add folder").setInputFiles(folder);
  await expect(page.getByText("2 files added.")).toBeVisible();

  const transfer = await page.evaluateHandle(
    (bytes) => {
      const data = new DataTransfer();
      data.items.add(new File([new Uint8Array(bytes)], "scan.pdf", { type: "application/pdf" }));
      return data;
    },
    [...pdf("cannot be read")],
  );
  await copies(page).dispatchEvent("drop", { dataTransfer: transfer });
  await expect(page.getByText("1 file added.")).toBeVisible();
  await expect(page.getByRole("radiogroup", { name: "Which copies" })).toContainText(
    /Missing 1.*Matched 2.*Left over 1/,
  );

  await copies(page)
    .getByRole("button", { name: "scan.pdf" })
    .dragTo(copies(page).getByRole("row", { name: /TL-1003/ }));
  await expect(page.getByRole("radiogroup", { name: "Which copies" })).toContainText(
    /Missing 0.*Matched 3.*Left over 0/,
  );
});
