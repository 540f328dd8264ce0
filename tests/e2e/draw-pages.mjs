// Draws the first page of each PDF of a folder as a picture beside it (A.pdf gives A.png), by pdf.js in Chromium: what a
// reader sees who has nothing to do with how the document was made.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { chromium } from "@playwright/test";

const [folder, scale] = process.argv.slice(2);
const here = "http://pages.example";
const roots = {
  "/pdfjs/": fileURLToPath(new URL("../../web/node_modules/pdfjs-dist/", import.meta.url)),
  "/files/": folder,
};
const types = { mjs: "text/javascript", pdf: "application/pdf" };

const browser = await chromium.launch({
  executablePath: process.env.RENDAL_CHROMIUM ?? "/usr/bin/chromium",
  args: ["--headless", "--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-sync"],
});
try {
  const page = await browser.newPage();
  await page.route(`${here}/**`, (route) => {
    const path = decodeURIComponent(new URL(route.request().url()).pathname);
    const root = Object.keys(roots).find((r) => path.startsWith(r));
    return root
      ? route.fulfill({
          body: readFileSync(join(roots[root], path.slice(root.length))),
          contentType: types[path.split(".").at(-1)] ?? "application/octet-stream",
        })
      : route.fulfill({ body: "<!doctype html><title>pages</title>", contentType: "text/html" });
  });
  await page.goto(`${here}/`);
  for (const name of readdirSync(folder).filter((n) => n.endsWith(".pdf"))) {
    const picture = await page.evaluate(
      async ([name, scale]) => {
        const pdfjs = await import("/pdfjs/build/pdf.mjs");
        pdfjs.GlobalWorkerOptions.workerSrc = "/pdfjs/build/pdf.worker.mjs";
        // Glyphs are drawn as outlines, so that the machine's way of smoothing letters does not matter.
        const task = pdfjs.getDocument({
          url: `/files/${encodeURIComponent(name)}`,
          cMapUrl: "/pdfjs/cmaps/",
          standardFontDataUrl: "/pdfjs/standard_fonts/",
          wasmUrl: "/pdfjs/wasm/",
          iccUrl: "/pdfjs/iccs/",
          disableFontFace: true,
        });
        const sheet = await (await task.promise).getPage(1);
        const viewport = sheet.getViewport({ scale });
        const canvas = document.createElement("canvas");
        [canvas.width, canvas.height] = [Math.floor(viewport.width), Math.floor(viewport.height)];
        await sheet.render({ canvas, viewport }).promise;
        await task.destroy();
        return canvas.toDataURL("image/png").split(",")[1];
      },
      [name, Number(scale)],
    );
    writeFileSync(join(folder, `${name.slice(0, -4)}.png`), Buffer.from(picture, "base64"));
  }
} finally {
  await browser.close();
}
