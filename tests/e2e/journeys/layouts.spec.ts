import { readFile } from "node:fs/promises";
import { expect, test, type Locator, type Page } from "@playwright/test";
import { barCodeText, pdfText, pixels, qrText } from "../documents";
import { greetAnybody, openLayouts, ownLayout, prepareRound } from "../people";

test.use({ deviceScaleFactor: 3 });

/** Keeps the layout as it is now and uses it for statements. */
async function useForStatements(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Save layout" }).click();
  await expect(page.getByText(/^version 2, by marta/)).toBeVisible();
  const uses = page.getByRole("region", { name: "Used for" });
  await uses.getByRole("button", { name: "Assign" }).click();
  await expect(uses.getByRole("button", { name: "no more for statements" })).toBeVisible();
}

/** How many points of a drawn page have the green of the logo. */
async function greens(sheet: Locator): Promise<number> {
  const { data } = await pixels(sheet);
  let green = 0;
  for (let i = 0; i < data.length; i += 4) {
    const away = Math.abs((data[i] ?? 0) - 11) + Math.abs((data[i + 1] ?? 0) - 110) + Math.abs((data[i + 2] ?? 0) - 79);
    green += away < 12 ? 1 : 0;
  }
  return green;
}

test("logo, columns, text and a payment code are changed and seen at once; a round goes out with that document", async ({
  page,
}) => {
  await openLayouts(page, "Layouts of our own");
  await ownLayout(page);
  const preview = page.getByRole("region", { name: "Preview" });
  const sheet = preview.locator("canvas");
  const part = (name: string) => page.getByRole("button", { name, exact: true });

  await test.step("the logo stands where the name was", async () => {
    await part("Letterhead").click();
    await page.getByLabel("Logo", { exact: true }).setInputFiles("files/logo.png");
    await expect.poll(() => greens(sheet)).toBeGreaterThan(5_000);
    await part("Letterhead").click();
  });

  await test.step("a column gets another heading, and one goes away; undone, it is back", async () => {
    await part("Table of items").click();
    await page.getByLabel("Heading of Number").fill("Our number");
    await expect(preview.getByRole("img", { name: /Our number\s+Type/ })).toBeVisible();
    await page.getByRole("button", { name: "Column Type away" }).click();
    await expect(preview.getByRole("img", { name: /Our number\s+Dated/ })).toBeVisible();
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(preview.getByRole("img", { name: /Our number\s+Type/ })).toBeVisible();
    await page.getByRole("button", { name: "Redo" }).click();
    await expect(preview.getByRole("img", { name: /Our number\s+Dated/ })).toBeVisible();
    await part("Table of items").click();
  });

  await test.step("a text with a slot", async () => {
    await page.getByLabel("Add a part").click();
    await page.getByTitle("Text", { exact: true }).click();
    await part("Text").click();
    await page.getByRole("textbox", { name: "Text" }).pressSequentially("With thanks to ");
    await page.getByLabel("Put a slot into the text").click();
    await page.getByTitle("Customer", { exact: true }).filter({ hasText: "Eldwick Manor" }).click();
    await expect(preview.getByRole("img", { name: /With thanks to/ })).toBeVisible();
    await part("Text").click();
  });

  await test.step("an IBAN that is none is refused; a right one makes a code that a bank reads", async () => {
    await part("How to pay").click();
    await page.getByLabel("IBAN").fill("DE00 1234");
    await expect(preview.getByText("Part 8, how to pay: “DE00 1234” is not an IBAN.")).toBeVisible();
    await page.getByLabel("IBAN").fill("DE89 3704 0044 0532 0130 00");
    await page.getByRole("combobox", { name: "Customer in the preview" }).click();
    await page.getByTitle("Gruffydd’s Kitchen").click();
    await expect(preview.getByRole("img", { name: /With thanks to Gruffydd’s Kitchen/ })).toBeVisible();
    await expect
      .poll(() => qrText(sheet))
      .toMatch(/^BCD\n002\n1\nSCT\n\nLayouts of our own\nDE89370400440532013000\nEUR66\.10\n\n\nGR07 /);
  });

  await test.step("it is enclosed as a workbook and as CSV too", async () => {
    await page.getByText("Sheet", { exact: true }).click();
    await page.getByRole("checkbox", { name: "workbook (XLSX)" }).check();
    await page.getByRole("checkbox", { name: "PDF" }).uncheck();
    await page.getByRole("checkbox", { name: "workbook (XLSX)" }).uncheck();
    await expect(preview.getByText("A document is enclosed in one form at least, and in each once.")).toBeVisible();
    for (const form of ["PDF", "workbook (XLSX)", "CSV"]) {
      await page.getByRole("checkbox", { name: form }).check();
    }
    await page.getByText("Sheet", { exact: true }).click();
  });

  await test.step("it is put to use, and what arrives is that document", async () => {
    await useForStatements(page);

    await prepareRound(page, "October");
    await greetAnybody(page, 3);
    await page.getByRole("button", { name: "Eldwick Manor", exact: true }).click();
    await page.keyboard.press("2");
    await expect(page.getByRole("img", { name: /Our number\s+Dated .*With thanks to Eldwick Manor/ })).toBeVisible();
    await page.keyboard.press("r");
    await page.getByRole("button", { name: "Release 3 messages" }).click();
    await expect(page.getByText("3 of 3 sent")).toBeVisible();

    await page.getByRole("link", { name: /Postroom/ }).click();
    await page.getByRole("button", { name: /statement at 31 October 2026, £388\.25/ }).click();
    const enclosed = (ending: string) =>
      page.getByRole("article").getByRole("link", { name: new RegExp(`EL03 statement .*\\.${ending}`) });
    const enclosure = enclosed("pdf");
    const words = (await pdfText(page, (await enclosure.getAttribute("href")) ?? "")).replace(/\s+/g, " ");
    for (const held of ["Our number", "With thanks to Eldwick Manor", "T-40001"]) {
      expect(words).toContain(held);
    }
    expect(words).not.toContain("Invoice");
    const csv = await (await page.request.get((await enclosed("csv").getAttribute("href")) ?? "")).text();
    expect(csv.split("\r\n")[0]).toBe("\uFEFFOur number,Dated,Due,Days overdue,Amount,Open,Currency");
    expect(csv).toContain("T-40001,");
    const workbook = await page.request.get((await enclosed("xlsx").getAttribute("href")) ?? "");
    expect((await workbook.body()).subarray(0, 2).toString()).toBe("PK");
    expect(workbook.headers()["content-disposition"]).toContain("attachment");
  });
});

test("a logo drawn from SVG, a page to pay on, a bar code and a signature stand on the sheet and can be read off it", async ({
  page,
}) => {
  await openLayouts(page, "Codes");
  await ownLayout(page);
  const preview = page.getByRole("region", { name: "Preview" });
  const sheet = preview.locator("canvas");
  const part = (name: string) => page.getByRole("button", { name, exact: true });
  await expect(preview.getByRole("img", { name: /Eldwick Manor/ })).toBeVisible();

  await test.step("the SVG is drawn; one that is damaged is refused by name", async () => {
    await part("Letterhead").click();
    await page.getByLabel("Logo", { exact: true }).setInputFiles({
      name: "torn.svg",
      mimeType: "image/svg+xml",
      buffer: Buffer.from("<svg xmlns='http://www.w3.org/2000/svg'><rect"),
    });
    await expect(page.getByText("torn.svg cannot be drawn: it is damaged, or no SVG picture.")).toBeVisible();
    await page.getByLabel("Logo", { exact: true }).setInputFiles("files/mark.svg");
    await expect.poll(() => greens(sheet)).toBeGreaterThan(5_000);
    await part("Letterhead").click();
  });

  await test.step("the link stands with its code, filled for this customer", async () => {
    await part("How to pay").click();
    const link = page.getByRole("textbox", { name: "Page to pay on" });
    await link.pressSequentially("pay.example");
    await expect(preview.getByText(/the link begins with https:/)).toBeVisible();
    await link.press("Home");
    await link.pressSequentially("https://");
    await link.press("End");
    await link.pressSequentially("/?account=");
    await page.getByLabel("Put a slot into the page to pay on").click();
    await page.getByTitle("Customer code", { exact: true }).filter({ hasText: "EL03" }).click();
    await expect(preview.getByRole("img", { name: /Pay online: pay\.example/ })).toBeVisible();
    await expect.poll(() => qrText(sheet)).toBe("https://pay.example/?account=EL03");
  });

  await test.step("the bar code is read by a decoder of another house, of both kinds", async () => {
    for (const kind of ["Code 128", "Code 39"]) {
      await page.getByLabel("Bar code", { exact: true }).click();
      await page.getByTitle(kind, { exact: true }).click();
      await expect.poll(() => barCodeText(sheet)).toEqual({ kind, text: "EL03" });
    }
    await part("How to pay").click();
  });

  await test.step("a signature stands where it was put", async () => {
    const before = await greens(sheet);
    await page.getByLabel("Add a part").click();
    await page.getByTitle("Signature", { exact: true }).click();
    await part("Signature").click();
    await page.getByLabel("Picture of the signature").setInputFiles("files/logo.png");
    await expect.poll(() => greens(sheet)).toBeGreaterThan(before + 3_000);
  });

  await test.step("and the layout is taken away, as nothing uses it", async () => {
    const layouts = page.getByRole("navigation", { name: "Layouts" });
    await page.getByRole("button", { name: "Delete…" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Delete layout" }).click();
    await expect(layouts.getByRole("button", { name: "Statement", exact: true })).toHaveCount(0);
    await expect(page.getByRole("button", { name: "Save as a copy" })).toBeVisible();
  });
});

test("a ready-made confirmation in German is begun from, and its slip stands in one piece", async ({ page }) => {
  await openLayouts(page, "Confirmations");
  await page.getByLabel("Start from").click();
  await page.getByTitle("Saldenbestätigung", { exact: true }).click();
  const preview = page.getByRole("region", { name: "Preview" });
  await expect(preview.getByRole("img", { name: /Saldenbestätigung .*Antwort an Confirmations/ })).toBeVisible();
  await expect(preview.getByRole("img", { name: /Eldwick Manor/ })).toBeVisible();
  await page.getByRole("heading", { name: "Words & paper" }).click();
  await page.keyboard.press("s");
  await expect(preview.getByRole("img", { name: /Saldenbestätigung/ })).toBeVisible();
  await expect(preview.getByRole("img", { name: /Eldwick Manor/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Slip to tear off away" }).click();
  await expect(preview.getByRole("img", { name: /Antwort an/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Save layout" }).click();
  await page.getByLabel("Earlier versions").click();
  await page.getByTitle(/^1: marta/).click();
  await expect(preview.getByRole("img", { name: /Antwort an Confirmations/ })).toBeVisible();
  await expect(page.getByText("changed, not in use yet")).toBeVisible();

  await page.getByRole("combobox", { name: "Use for" }).click();
  await page.getByTitle("reminders", { exact: true }).click();
  await page.getByRole("combobox", { name: "In the language" }).click();
  await page.getByTitle("Deutsch").click();
  await page.getByRole("button", { name: "Assign", exact: true }).click();
  await expect(page.getByRole("button", { name: "no more for reminders, Deutsch" })).toBeVisible();
});

test("a letter from a word processor is brought, its slip of the pen told; a round goes out with it filled", async ({
  page,
}) => {
  await openLayouts(page, "Letters");

  await test.step("an unknown slot is named with the nearest known one", async () => {
    await page.getByLabel("Upload letter (DOCX)…", { exact: true }).setInputFiles("files/letter-with-a-slip.docx");
    const told = page.getByRole("dialog", { name: "letter-with-a-slip.docx cannot be used yet" });
    await expect(told).toContainText("In the body: “custmer.name” names nothing known; did you mean “customer.name”?");
    await told.getByRole("button", { name: "OK" }).click();
  });

  await test.step("put right, its slots are listed and it is filled for a customer", async () => {
    await page.getByLabel("Upload letter (DOCX)…", { exact: true }).setInputFiles("../../demo/letter.docx");
    const letter = page.getByRole("region", { name: "Letter" });
    await expect(letter).toContainText("letter.docx");
    await expect(letter.getByRole("row", { name: "{{ customer.contact }} Accounts always" })).toBeVisible();
    await expect(
      letter.getByRole("row", { name: "{{ statement.overdue }} where something is past due" }),
    ).toBeVisible();
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Filled, as DOCX" }).click();
    expect((await readFile(await (await download).path())).subarray(0, 2).toString()).toBe("PK");
  });

  await test.step("a round goes out with it, enclosed as DOCX", async () => {
    await page.getByText("Sheet", { exact: true }).click();
    // Whether it begins as a PDF depends on whether LibreOffice is installed.
    await page.getByRole("checkbox", { name: "DOCX" }).check();
    await page.getByRole("checkbox", { name: "CSV" }).check();
    await page.getByRole("checkbox", { name: "PDF" }).uncheck();
    await useForStatements(page);
    await prepareRound(page, "October");
    await greetAnybody(page, 3);
    await page.keyboard.press("r");
    await page.getByRole("button", { name: "Release 3 messages" }).click();
    await expect(page.getByText("3 of 3 sent")).toBeVisible();
    await page.getByRole("link", { name: /Postroom/ }).click();
    await page.getByRole("button", { name: /statement at 31 October 2026, £388\.25/ }).click();
    const enclosure = page.getByRole("article").getByRole("link", { name: /EL03 statement .*\.docx/ });
    const file = await page.request.get((await enclosure.getAttribute("href")) ?? "");
    expect((await file.body()).subarray(0, 2).toString()).toBe("PK");
  });
});
