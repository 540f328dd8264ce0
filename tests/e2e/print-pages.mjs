// Prints one HTML page to PDF many times in one running Chromium, and says how many it printed a second.
// The yardstick of ./rendal bench for documents.
import { readFileSync } from "node:fs";
import { chromium } from "@playwright/test";

const [file, times] = process.argv.slice(2);
const html = readFileSync(file, "utf8");
const browser = await chromium.launch({
  executablePath: process.env.RENDAL_CHROMIUM ?? "/usr/bin/chromium",
  args: ["--headless", "--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-sync"],
});
const page = await browser.newPage();
const print = async () => {
  await page.setContent(html);
  const pdf = await page.pdf({ format: "A4" });
  if (pdf.length < 1000) {
    throw new Error("nothing was printed");
  }
};
await print();
const begin = performance.now();
for (let i = 0; i < Number(times); i++) {
  await print();
}
console.log((1000 * Number(times)) / (performance.now() - begin));
await browser.close();
