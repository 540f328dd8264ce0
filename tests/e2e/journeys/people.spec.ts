import { expect, test } from "@playwright/test";
import { makeBook, signIn, takeIn } from "../people";

test("a book is given to a colleague, who chooses a password and opens it, and taken away again", async ({
  page,
  browser,
}) => {
  const colleague = `Ines ${Date.now()}`;
  await signIn(page);
  await makeBook(page, "Shared Laundry");
  await page.getByRole("button", { name: /marta: settings/ }).click();
  await page.getByRole("menuitem", { name: "Who has this book" }).click();
  await expect(page.getByRole("row", { name: "marta · you has the book, and made it" })).toBeVisible();
  await page.getByLabel("Invite", { exact: true }).fill(colleague);
  await page.getByRole("button", { name: "Invite" }).click();
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
  await page.getByRole("button", { name: `Remove ${colleague}` }).click();
  await expect(page.getByRole("row", { name: new RegExp(colleague) })).toBeHidden();
  await theirs.goto("/");
  await theirs.getByLabel("Name").fill(colleague);
  await theirs.getByLabel("Password").fill("linen and lavender");
  await theirs.getByRole("button", { name: "Sign in" }).click();
  await expect(theirs.getByRole("heading", { name: "A new book" })).toBeVisible();

  // Who can sign in already follows as who they are.
  await page.getByLabel("Invite", { exact: true }).fill(colleague);
  await page.getByRole("button", { name: "Invite" }).click();
  await theirs.goto(await page.getByLabel("Address to pass on").inputValue());
  await expect(theirs.getByText(`You were invited as ${colleague}, and are signed in as ${colleague}.`)).toBeVisible();
  await theirs.getByRole("button", { name: "Open the book" }).click();
  await expect(theirs.getByRole("button", { name: "Book: Shared Laundry. Change" })).toBeVisible();
});

test("a password is changed, forgotten, and chosen anew, and each time everybody else is signed out", async ({
  page,
  browser,
}) => {
  const colleague = `Wilma ${Date.now()}`;
  await signIn(page);
  await makeBook(page, "Account Laundry");
  await page.getByRole("button", { name: /marta: settings/ }).click();
  await page.getByRole("menuitem", { name: "Who has this book" }).click();
  await page.getByLabel("Invite", { exact: true }).fill(colleague);
  await page.getByRole("button", { name: "Invite" }).click();
  const invitation = await page.getByLabel("Address to pass on").inputValue();
  const here = await (await browser.newContext()).newPage();
  await here.goto(invitation);
  await here.getByLabel("A password of at least 10 characters").fill("linen and lavender");
  await here.getByRole("button", { name: "Open the book" }).click();
  const there = await (await browser.newContext()).newPage();
  await there.goto("/sign-in");
  await there.getByLabel("Name").fill(colleague);
  await there.getByLabel("Password").fill("linen and lavender");
  await there.getByRole("button", { name: "Sign in" }).click();
  await expect(there.getByRole("button", { name: "Book: Account Laundry. Change" })).toBeVisible();

  await here.getByRole("button", { name: new RegExp(`${colleague}: settings`) }).click();
  await here.getByRole("menuitem", { name: "Your account" }).click();
  await expect(here.getByRole("region", { name: "Signed in" }).getByRole("row")).toHaveCount(3);
  await here.getByLabel("Current password").fill("not this one");
  await here.getByLabel("New password, at least 10 characters").fill("starch and steam");
  await here.getByRole("button", { name: "Change password" }).click();
  await expect(here.getByText("The name or the password is wrong.")).toBeVisible();
  await here.getByLabel("Current password").fill("linen and lavender");
  await here.getByRole("button", { name: "Change password" }).click();
  await expect(here.getByText("Password changed.")).toBeVisible();
  await expect(here.getByRole("region", { name: "Signed in" }).getByRole("row")).toHaveCount(2);
  await there.reload();
  await expect(there.getByRole("heading", { name: "Sign in" })).toBeVisible();

  await page.getByRole("button", { name: /marta: settings/ }).click();
  await page.getByRole("menuitem", { name: "Your account" }).click();
  await page.getByLabel("Name they sign in with").fill(colleague);
  await page.getByRole("button", { name: "Create link" }).click();
  await there.goto(await page.getByLabel("Address to pass on").inputValue());
  await there.getByLabel("A password of at least 10 characters").fill("mangle and press");
  await there.getByRole("button", { name: "Save password" }).click();
  await expect(there.getByRole("button", { name: "Book: Account Laundry. Change" })).toBeVisible();
  await here.reload();
  await expect(here.getByRole("heading", { name: "Sign in" })).toBeVisible();
});

test("of two who change one card the second keeps what they entered and sees what the first changed", async ({
  page,
  context,
}) => {
  await signIn(page);
  await makeBook(page, "Two Hands Laundry");
  const book = new URL(page.url()).pathname.split("/")[2];
  await takeIn(page, "files/movements.csv");
  await page.goto(`/books/${book}/customers?card=AB01`);
  await page.getByLabel("Country").fill("Wales");
  const other = await context.newPage();
  await other.goto(`/books/${book}/customers?card=AB01`);
  await other.getByLabel("Name", { exact: true }).fill("Abbot’s Table and Cellar");
  await other.getByRole("button", { name: "Save card" }).click();
  await expect(other.getByText("Abbot’s Table and Cellar").first()).toBeVisible();
  await page.getByRole("button", { name: "Save card" }).click();
  await expect(page.getByText("marta changed this card since you opened it.")).toBeVisible();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Abbot’s Table and Cellar");
  await expect(page.getByLabel("Country")).toHaveValue("Wales");
  await page.getByRole("button", { name: "Save card" }).click();
  await expect(page.getByText("marta changed this card since you opened it.")).toBeHidden();
  await page.goto(`/books/${book}/customers?card=AB01`);
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Abbot’s Table and Cellar");
  await expect(page.getByLabel("Country")).toHaveValue("Wales");
});

test("while the database is away what is typed stays, and it goes on by itself", async ({ page }) => {
  await signIn(page);
  await makeBook(page, "Away Laundry");
  const book = new URL(page.url()).pathname.split("/")[2];
  await takeIn(page, "files/movements.csv");
  await page.goto(`/books/${book}/customers?card=AB01`);
  await page.getByLabel("Country").fill("Scotland");
  const words = "The database cannot be reached at the moment.";
  let away = true;
  let keeps = () => {};
  const kept = new Promise<void>((done) => (keeps = done));
  await page.route("**/api/**", async (route) => {
    if (away) {
      return route.fulfill({
        status: 503,
        contentType: "application/problem+json",
        body: JSON.stringify({ detail: words }),
      });
    }
    if (route.request().method() === "PUT") {
      await kept;
    }
    return route.continue();
  });
  await page.getByRole("button", { name: "Save card" }).click();
  await expect(page.getByText(words).first()).toBeVisible();
  await expect(page.getByLabel("Country")).toHaveValue("Scotland");

  // It is back for what is only read; the card is not kept yet, so the line stands.
  away = false;
  const read = page.waitForResponse((response) => response.request().method() === "GET" && response.ok());
  await page.evaluate(() => document.dispatchEvent(new Event("visibilitychange")));
  await read;
  await expect(page.getByText(words).first()).toBeVisible();
  keeps();
  await expect(page.getByText(words)).toHaveCount(0);
  await page.goto(`/books/${book}/customers?card=AB01`);
  await expect(page.getByLabel("Country")).toHaveValue("Scotland");

  await page.unroute("**/api/**");
  await page.goto(`/books/${book}/customers`);
  await expect(page.getByRole("heading", { name: "Customers" })).toBeVisible();
  await page.route("**/api/**", (route) => route.abort());
  await page.getByRole("link", { name: "Rounds" }).click();
  await expect(page.getByText("Rendal cannot be reached at the moment.")).toBeVisible();
  await page.unroute("**/api/**");
  await expect(page.getByText("Rendal cannot be reached at the moment.")).toHaveCount(0);
  await expect(page.getByRole("heading", { name: "Rounds" })).toBeVisible();
});
