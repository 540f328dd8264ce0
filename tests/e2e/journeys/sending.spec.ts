import { expect, test } from "@playwright/test";
import { pdfText } from "../documents";
import { greetAnybody, makeBook, prepareRound, signIn } from "../people";

const addresses = (i: number): string => {
  const special: Record<number, string> = {
    7: "drill.recipient.550@inn7.example",
    21: "drill.recipient.550@inn21.example",
    33: "drill.end.554@inn33.example",
    12: "drill.end.451.once@inn12.example",
    40: "drill.end.keep-and-cut@inn40.example",
  };
  return special[i] ?? `office@inn${i}.example`;
};

const two = (i: number) => String(i).padStart(2, "0");

/** A ledger of sixty customers, five of whom have addresses at which the postroom misbehaves. */
const ledger = Buffer.from(
  [
    "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail",
    ...Array.from({ length: 60 }, (_, i) => i + 1).map(
      (i) => `I${two(i)},Inn ${two(i)},Invoice,T-${50_000 + i},2026-09-01,2026-10-01,GBP,${100 + i}.00,${addresses(i)}`,
    ),
  ].join("\n"),
);

test("sixty parcels go out in spite of bad addresses, a busy server and a cut; what is unsure is decided, what comes back is taken in", async ({
  page,
}) => {
  await signIn(page);
  await makeBook(page, "Sixty Inns Laundry");
  await page.getByRole("link", { name: "Ledger", exact: true }).click();
  await page.getByLabel("Ledger file").setInputFiles({ name: "inns.csv", mimeType: "text/csv", buffer: ledger });
  await page.getByRole("button", { name: /^Keep / }).click();
  await expect(page.getByText("is the ledger", { exact: true })).toBeVisible();

  await test.step("the sender gets an allowance, and is tried", async () => {
    await page.getByRole("link", { name: "Words & paper" }).click();
    await page.getByRole("tab", { name: "Senders" }).click();
    await page.getByLabel("Messages a minute").fill("200");
    await page.getByRole("button", { name: "Test" }).click();
    await expect(page.getByRole("row", { name: /Address ✓ in order .*may send; nothing was sent/ })).toBeVisible();
    await page.getByRole("button", { name: "Save sender" }).click();
    await expect(page.getByText("Kept. It sends to the postroom.")).toBeVisible();
  });

  await test.step("all sixty are released", async () => {
    await prepareRound(page, "October");
    await greetAnybody(page, 60);
    await page.keyboard.press("r");
    const dialog = page.getByRole("dialog", { name: "Release October" });
    await expect(dialog).toContainText("The pace allowed takes about 18 s.");
    await dialog.getByLabel("Type the number of messages").fill("60");
    await dialog.getByRole("button", { name: "Release 60 messages" }).click();
  });

  const sending = page.getByRole("status").filter({ hasText: /of 60 sent/ });
  await test.step("sending is watched, made to wait, and goes on, also over a reload", async () => {
    await expect(sending).toContainText("left");
    await sending.getByRole("button", { name: "Pause" }).click();
    await expect(sending.getByRole("button", { name: "Resume" })).toBeVisible();
    await page.reload();
    await expect(sending.getByRole("button", { name: "Resume" })).toBeVisible();
    await sending.getByRole("button", { name: "Resume" }).click();
    await expect(sending).toContainText("3 refused", { timeout: 60_000 });
    await expect(sending).toContainText("1 unsure", { timeout: 60_000 });
    await expect(sending).toContainText("1 left", { timeout: 60_000 });
    await expect(page.getByRole("row", { name: /To be retried · 1/ })).toBeVisible();
  });

  await test.step("the unsure one says why, is found in the postroom, and a person decides", async () => {
    await page.getByRole("button", { name: "Inn 40", exact: true }).click();
    const parcel = page.getByRole("article", { name: "Parcel of Inn 40" });
    await expect(parcel).toContainText("before the server answered");
    await parcel.getByRole("button", { name: "Mark as sent" }).click();
    await expect(sending).not.toContainText("unsure");
  });

  await test.step("one is found in the log by the number of its invoice, with its enclosure", async () => {
    await page.getByRole("link", { name: "Dispatch log" }).click();
    await page.getByLabel("Search the log").fill("T-50009");
    await expect(page.getByText("1 entry")).toBeVisible();
    const pane = page.getByRole("region", { name: "The message as sent" });
    const link = pane.getByRole("link", { name: /I09 statement 2026-10-31\.pdf/ });
    expect(await pdfText(page, (await link.getAttribute("href")) ?? "")).toContain("T-50009");
    await page.getByLabel("A note for the record").fill("Asked for by telephone.");
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await expect(pane.getByText(/, marta: Asked for by telephone\./)).toBeVisible();
    await page.getByLabel("Search the log").fill("T-50040");
    await expect(pane.getByText("Decided that it went.")).toBeVisible();
    await page.getByLabel("Search the log").fill("");
    await page.getByLabel("Outcome").click();
    await page.getByTitle("refused", { exact: true }).click();
    await expect(page.getByText("3 entries")).toBeVisible();
  });

  await test.step("a delivery report comes back, is taken in, and shows on the customer", async () => {
    await page.getByRole("link", { name: /Postroom/ }).click();
    await page.getByLabel("Search the postroom").fill("office@inn9.example");
    await page.getByRole("button", { name: /£109\.00/ }).click();
    await page.getByRole("button", { name: "Send delivery report" }).click();
    await page.getByLabel("Search the postroom").fill("Delivery Status");
    await page.getByRole("button", { name: "Delivery Status Notification (Failure)" }).click();
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "Save as .eml" }).click();
    const report = await (await download).path();
    await page.getByRole("link", { name: "Dispatch log" }).click();
    await page.getByLabel("Mail that came back").setInputFiles(report);
    const dialog = page.getByRole("dialog", { name: "1 message taken in" });
    await expect(dialog.getByRole("row", { name: /Inn 09 returned: it never reached them/ })).toBeVisible();
    await dialog.getByRole("link", { name: "Inn 09" }).click();
    await expect(
      page.getByText(/Mail to office@inn9\.example came back on .*: 550 5\.1\.1 no such mailbox here/),
    ).toBeVisible();
  });

  await test.step("another one is fetched from the mailbox of the sender", async () => {
    await page.keyboard.press("Escape");
    await page.getByRole("link", { name: /Postroom/ }).click();
    await page.getByLabel("Search the postroom").fill("office@inn11.example");
    await page.getByRole("button", { name: /£111\.00/ }).click();
    await page.getByRole("button", { name: "Send delivery report" }).click();
    await page.getByRole("link", { name: "Words" }).click();
    await page.getByRole("tab", { name: "Senders" }).click();
    await page.getByRole("button", { name: "Fetch from a mailbox…" }).click();
    await page.getByRole("button", { name: "Add mailbox" }).click();
    await page.getByRole("button", { name: "Fetch now" }).click();
    await expect(page.getByRole("status").filter({ hasText: /new|Nothing/ })).toBeVisible();
    await page.getByRole("link", { name: "Rounds", exact: true }).click();
    // The notice that the round has ended may stand beside the list by now, and leads to the same place.
    await page.getByRole("link", { name: "October" }).first().click();
    await expect(sending).toContainText("2 returned");
  });

  await test.step("mail that only looks like a report waits until somebody has said what it is", async () => {
    const mail =
      "Return-Path: <>\r\nFrom: Gate <gate@inn13.example>\r\nDate: Mon, 2 Nov 2026 08:14:00 +0000\r\nSubject: Held\r\n\r\nMail to office@inn13.example is kept at the gate.\r\n";
    await page.getByRole("link", { name: "Dispatch log" }).click();
    await page
      .getByLabel("Mail that came back")
      .setInputFiles({ name: "held.eml", mimeType: "message/rfc822", buffer: Buffer.from(mail) });
    await expect(page.getByRole("row", { name: /Inn 13 unclear: open it and decide/ })).toBeVisible();
    await page.keyboard.press("Escape");
    await page.getByRole("link", { name: "Today" }).click();
    await page.getByRole("button", { name: "Open the message about Inn 13" }).click();
    await page.getByRole("button", { name: "It was delivered" }).click();
    await expect(page.getByRole("region", { name: "Unclear mail" })).toBeHidden();
    await page.getByRole("link", { name: "Rounds", exact: true }).click();
    // The notice that the round has ended may stand beside the list by now, and leads to the same place.
    await page.getByRole("link", { name: "October" }).first().click();
    await expect(sending).toContainText("2 returned");
  });

  await test.step("the one that was put off has gone by itself, and nothing came twice", async () => {
    await expect(sending).toContainText("55 of 60 sent", { timeout: 120_000 });
    await page.getByRole("link", { name: /Postroom/ }).click();
    await expect(page.getByRole("heading", { name: "Postroom" })).toBeVisible();
    await expect(page.getByText(/came more than once/)).toHaveCount(0);
  });
});
