import { expect, type Locator, type Page } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import jsQR from "jsqr";

/** The words of a PDF at an address. */
export async function pdfText(page: Page, address: string): Promise<string> {
  const answer = await page.request.get(address);
  expect(answer.headers()["content-type"]).toContain("application/pdf");
  const file = join(mkdtempSync(join(tmpdir(), "rendal-pdf-")), "statement.pdf");
  writeFileSync(file, await answer.body());
  return execFileSync("dotnet", ["../../artifacts/bin/Rendal.PdfText/release/Rendal.PdfText.dll", file], {
    encoding: "utf8",
  });
}

/** A drawn page as its points, four bytes each. */
export async function pixels(canvas: Locator): Promise<{ data: Uint8ClampedArray; width: number; height: number }> {
  const drawn = await canvas.evaluate((c) => {
    const target = c as HTMLCanvasElement;
    const { width, height } = target;
    const data = target.getContext("2d")?.getImageData(0, 0, width, height).data ?? [];
    return { width, height, base64: btoa(Array.from(data, (b) => String.fromCharCode(b)).join("")) };
  });
  return { ...drawn, data: new Uint8ClampedArray(Buffer.from(drawn.base64, "base64")) };
}

/** The text of the QR code on a drawn page, read by a decoder that knows nothing of how it was made; null where there is none. */
export async function qrText(canvas: Locator): Promise<string | null> {
  const { data, width, height } = await pixels(canvas);
  const decode = jsQR as unknown as (data: Uint8ClampedArray, width: number, height: number) => { data: string } | null;
  return decode(data, width, height)?.data ?? null;
}
