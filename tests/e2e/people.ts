import { expect, type Page } from "@playwright/test";

/** Signs in as the person whom the demo names, and waits for the first page. */
export async function signIn(page: Page): Promise<void> {
  await page.goto("/sign-in");
  await page.getByLabel("Name").fill("marta");
  await page.getByLabel("Password").fill("hire-and-launder");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Owed to us" })).toBeVisible();
}
