import { expect, test } from "@playwright/test";
import { signIn } from "../people";

test("without a session every place leads to the door, and the data stay behind it", async ({ page }) => {
  await page.goto("/books/1/rounds");
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  for (const path of ["/api/session", "/api/books/1", "/api/books/1/customers", "/api/books/1/dispatch/log.csv"]) {
    expect((await page.request.get(path)).status(), path).toBe(401);
  }
});

test("a wrong password is said to be wrong, and a right one lets in", async ({ page }) => {
  await page.goto("/sign-in");
  await page.getByLabel("Name").fill("marta");
  await page.getByLabel("Password").fill("not the password");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toContainText("The name or the password is wrong.");
  await signIn(page);
  await page.getByRole("button", { name: /marta: settings/ }).click();
  await page.getByRole("menuitem", { name: "Sign out" }).click();
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
});

test("a server that fails for a moment signs nobody out", async ({ page }) => {
  await signIn(page);
  await page.route("**/api/session", (route) =>
    route.fulfill({ status: 503, json: { detail: "The database cannot be reached." } }),
  );
  await page.goto("/");
  await expect(page.getByRole("alert")).toContainText("The database cannot be reached.");
  await page.unroute("**/api/session");
  await page.goto("/");
  await expect(page.getByRole("navigation", { name: "Places" })).toBeVisible();
});
