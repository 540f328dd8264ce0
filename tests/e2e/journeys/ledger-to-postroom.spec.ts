import { expect, test } from "@playwright/test";
import { pdfText } from "../documents";
import { greetAnybody, makeBook, prepareRound, signIn, takeIn } from "../people";

const parcels = [
  {
    name: "Eldwick Manor",
    subject: "Harrow Mill Linen: statement at 31 October 2026, £388.25",
    file: "EL03 statement 2026-10-31.pdf",
    holds: ["T-40001", "T-40002", "C-4001", "£388.25", "−12.25", "Eldwick"],
  },
  {
    name: "Gruffydd’s Kitchen",
    subject: "Harrow Mill Linen: statement at 31 October 2026, €66.10 · £704.00",
    file: "GR07 statement 2026-10-31.pdf",
    holds: ["T-40003", "T-40004", "£704.00", "€66.10", "1,204.00", "Gruffydd’s"],
  },
  {
    name: "Sørlandet Łódź Spa",
    subject: "Harrow Mill Linen: statement at 31 October 2026, £480.75",
    file: "SØ01 statement 2026-10-31.pdf",
    holds: ["T-40005", "£480.75", "Sørlandet", "Łódź"],
  },
];

test("a ledger file becomes mail in the postroom, each customer's own and nobody else's", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Harrow Mill Linen");

  await test.step("the file is looked at, with its findings, before anything is kept", async () => {
    await takeIn(page, "files/open-items.csv", async () => {
      await expect(page.getByText("9 rows · 6 customers")).toBeVisible();
      const found = page.getByRole("complementary", { name: "What was found" });
      await expect(found.getByRole("heading", { name: /Not an amount/ })).toBeVisible();
      await expect(found.getByRole("button", { name: "Row 10, Outstanding" })).toBeVisible();
      await expect(found.getByText("“forty” is not an amount.")).toHaveCount(2);
      await expect(found.getByRole("heading", { name: /No address/ })).toBeVisible();
    });
    await expect(page.getByText("8 rows kept. They are the ledger now.")).toBeVisible();
  });

  await test.step("a round is prepared, and its proof closes", async () => {
    await prepareRound(page, "October");
    const proof = page.getByRole("region", { name: "Proof in GBP" });
    await expect(proof).toContainText("Ledger £1,428.00");
    await expect(proof).toContainText("£0.00 ✓");
    await expect(page.getByRole("row", { name: /Need you/ })).toBeVisible();
    await proof.getByRole("button", { name: "why" }).click();
    await expect(page.getByRole("row", { name: /Nobody Reached Inn no address/ })).toBeVisible();
    await expect(page.getByRole("row", { name: /Paid Ahead Hotel credit balance/ })).toBeVisible();
  });

  await test.step("the wording gets an “or else” for customers with no contact, and nobody waits any more", async () => {
    await greetAnybody(page, 3);
    await expect(page.getByRole("row", { name: /Need you/ })).toHaveCount(0);
  });

  await test.step("three parcels are looked through as they will arrive", async () => {
    for (const parcel of parcels) {
      await page.getByRole("button", { name: parcel.name, exact: true }).click();
      await page.keyboard.press("1");
      const view = page.getByRole("article", { name: `Parcel of ${parcel.name}` });
      await expect(view.getByText(parcel.subject)).toBeVisible();
      const message = page.frameLocator(`iframe[title="Message to ${parcel.name}"]`);
      await expect(message.getByText("Good day,")).toBeVisible();
      await expect(message.getByText(parcel.holds[0] ?? "")).toBeVisible();
      await page.keyboard.press("2");
      await expect(view.getByRole("img", { name: new RegExp(parcel.holds[0] ?? "") })).toBeVisible();
      await page.keyboard.press("3");
      await expect(view.getByRole("link", { name: /^row \d+$/ }).first()).toBeVisible();
    }
  });

  await test.step("they are released by one deliberate act", async () => {
    await page.keyboard.press("r");
    const dialog = page.getByRole("dialog", { name: "Release October" });
    await expect(dialog).toContainText("3, to 3 addresses");
    await expect(dialog).toContainText("£1,573.00 · €66.10");
    await expect(dialog).toContainText("the postroom: practice, nothing leaves this machine");
    await dialog.getByRole("button", { name: "Release 3 messages" }).click();
    await expect(page.getByText("3 of 3 sent")).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole("row", { name: /^Sent · 3/ })).toBeVisible();
  });

  await test.step("the postroom has them, each with its own statement", async () => {
    await page.getByRole("link", { name: /Postroom/ }).click();
    await expect(page.getByText("3 messages · nothing here has left this machine")).toBeVisible();
    for (const parcel of parcels) {
      await page.getByRole("button", { name: parcel.subject }).click();
      const message = page.getByRole("article", { name: parcel.subject });
      const link = message.getByRole("link", { name: new RegExp(parcel.file.replaceAll(".", "\\.")) });
      await expect(page.frameLocator('iframe[title="Message"]').getByText(parcel.holds[0] ?? "")).toBeVisible();
      const words = await pdfText(page, (await link.getAttribute("href")) ?? "");
      for (const held of parcel.holds) {
        expect(words).toContain(held);
      }
      for (const other of parcels.filter((p) => p !== parcel).flatMap((p) => p.holds)) {
        expect(words, `${parcel.name} must not see ${other}`).not.toContain(other);
      }
    }
  });

  await test.step("the dispatch log has each of them, exactly as sent", async () => {
    await page.getByRole("link", { name: "Dispatch log" }).click();
    await expect(page.getByText("3 entries")).toBeVisible();
    await page.getByLabel("Search the log").fill("eldwick");
    await expect(page.getByText("1 entry")).toBeVisible();
    const pane = page.getByRole("region", { name: "The message as sent" });
    await expect(pane).toContainText("The server said 250 2.0.0 kept");
    await expect(pane).toContainText(/SHA-256 [0-9a-f]{64}/);
    await expect(pane.getByText("Harrow Mill Linen: statement at 31 October 2026, £388.25")).toBeVisible();
    const download = page.waitForEvent("download");
    await pane.getByRole("link", { name: "Save as .eml" }).click();
    expect((await download).suggestedFilename()).toMatch(/\.eml$/);
    const log = await page.request.get(
      (await page.getByRole("link", { name: "Save as CSV" }).getAttribute("href")) ?? "",
    );
    expect(await log.text()).toContain("accounts@eldwick.example");
  });
});
