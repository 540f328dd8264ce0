import { expect, type Locator, type Page } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import zxing from "@zxing/library";
import jsQR from "jsqr";

const {
  BarcodeFormat,
  BinaryBitmap,
  DecodeHintType,
  HybridBinarizer,
  MultiFormatReader,
  NotFoundException,
  RGBLuminanceSource,
} = zxing;

const decode = jsQR as unknown as (data: Uint8ClampedArray, width: number, height: number) => { data: string } | null;

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
  return decode(data, width, height)?.data ?? null;
}

/** The text of the QR code in a picture, read at the size that it is shown at; null where there is none. */
export async function scanned(picture: Locator): Promise<string | null> {
  const points = await picture.evaluate((e: HTMLImageElement) => {
    const canvas = Object.assign(document.createElement("canvas"), { width: e.width, height: e.height });
    const drawn = canvas.getContext("2d");
    drawn?.drawImage(e, 0, 0, e.width, e.height);
    return Array.from(drawn?.getImageData(0, 0, e.width, e.height).data ?? []);
  });
  const side = Math.sqrt(points.length / 4);
  return decode(new Uint8ClampedArray(points), side, side)?.data ?? null;
}

/** The bar code on a drawn page and its kind, read by a decoder that knows nothing of how it was made; null where there is none. */
export async function barCodeText(canvas: Locator): Promise<{ kind: string; text: string } | null> {
  const { data, width, height } = await pixels(canvas);
  const grey = new Uint8ClampedArray(width * height);
  for (let i = 0; i < grey.length; i++) {
    grey[i] = ((data[4 * i] ?? 0) + (data[4 * i + 1] ?? 0) + (data[4 * i + 2] ?? 0)) / 3;
  }
  const reader = new MultiFormatReader();
  reader.setHints(
    new Map<zxing.DecodeHintType, unknown>([
      [DecodeHintType.POSSIBLE_FORMATS, [BarcodeFormat.CODE_128, BarcodeFormat.CODE_39]],
      [DecodeHintType.TRY_HARDER, true],
    ]),
  );
  try {
    const read = reader.decode(new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(grey, width, height))));
    return { kind: read.getBarcodeFormat() === BarcodeFormat.CODE_128 ? "Code 128" : "Code 39", text: read.getText() };
  } catch (e) {
    if (e instanceof NotFoundException) {
      return null;
    }
    throw e;
  }
}
