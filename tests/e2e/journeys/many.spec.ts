import { writeFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { makeBook, prepareRound, signIn, takeIn } from "../people";

test("a list of several pages is looked through to its end, and found by name", async ({ page }, info) => {
  const many = 450;
  const file = info.outputPath("many.csv");
  const lines = Array.from({ length: many }, (_, i) => {
    const number = String(i).padStart(3, "0");
    return `C${number},Inn ${number},Invoice,T-${i},2026-09-01,2026-10-01,${i + 10}.00,inn${number}@inn.example`;
  });
  writeFileSync(file, ["Code,Name,Kind,Number,Date,Due,Outstanding,E-mail", ...lines].join("\n"));
  await signIn(page);
  await makeBook(page, "Many Inns");
  await takeIn(page, file);
  await prepareRound(page, "October");
  const place = (text: string) => page.getByRole("status").getByText(text, { exact: true });
  await expect(place(`1 of ${many}`)).toBeVisible();

  // To the end, and a step back over what was never in sight.
  await page.getByRole("region", { name: "Parcels" }).evaluate((list) => (list.scrollTop = list.scrollHeight));
  await page.getByRole("button", { name: "Inn 449", exact: true }).click();
  await expect(place(`450 of ${many}`)).toBeVisible();
  await page.keyboard.press("k");
  await expect(page.getByRole("article", { name: "Parcel of Inn 448" })).toBeVisible();
  await page.reload();
  await expect(place(`449 of ${many}`)).toBeVisible();
  await expect(page.getByRole("button", { name: "Inn 448", exact: true })).toBeVisible();

  // Who is held moves to another group, and stays in view.
  await page.keyboard.press("h");
  await expect(page.getByText("Held · 1")).toBeVisible();
  await expect(place(`450 of ${many}`)).toBeVisible();
  await page.getByLabel("Jump to a customer in this round").fill("inn 2");
  await expect(place("1 of 100")).toBeVisible();
  await expect(page.getByRole("article", { name: "Parcel of Inn 200" })).toBeVisible();
});
