import { expect, test } from "@playwright/test";
import { makeBook, signIn } from "../people";

test("a book is given to a colleague, who chooses a password and opens it, and taken away again", async ({
  page,
  browser,
}) => {
  const colleague = `Ines ${Date.now()}`;
  await signIn(page);
  await makeBook(page, "Shared Laundry");
  await page.getByRole("button", { name: /marta: settings/ }).click();
  await page.getByRole("menuitem", { name: "Who has this book" }).click();
  await expect(page.getByRole("row", { name: "marta · you has the book" })).toBeVisible();
  await page.getByLabel("Give it to").fill(colleague);
  await page.getByRole("button", { name: "Give the book" }).click();
  const address = await page.getByLabel("Address to pass on").inputValue();
  await expect(page.getByRole("row", { name: new RegExp(`${colleague} invited by marta`) })).toBeVisible();

  const theirs = await (await browser.newContext()).newPage();
  await theirs.goto(address);
  await expect(theirs.getByRole("heading", { name: "The book of Shared Laundry" })).toBeVisible();
  await theirs.getByLabel("A password of at least 10 characters").fill("linen and lavender");
  await theirs.getByRole("button", { name: "Open the book" }).click();
  await expect(theirs.getByRole("button", { name: "Book: Shared Laundry. Change" })).toBeVisible();
  await theirs.goto(address);
  await expect(theirs.getByRole("alert")).toContainText("This invitation was followed already");

  await page.reload();
  await page.getByRole("button", { name: `Take it away from ${colleague}` }).click();
  await expect(page.getByRole("row", { name: new RegExp(colleague) })).toBeHidden();
  await theirs.goto("/");
  await expect(theirs.getByRole("heading", { name: "A new book" })).toBeVisible();
});
