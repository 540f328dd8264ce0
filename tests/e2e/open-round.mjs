// Opens a round as a person does, signed in and with the list of rounds before them, and says in milliseconds how long it
// takes until its first parcels are seen, then until the message of the first is there (the middle one of five openings), and how
// long the messages of the next parcels take by the key that leads on (the middle one). For ./rendal bench.
import { chromium } from "@playwright/test";

const [address, name, password, book, round, next] = process.argv.slice(2);
const browser = await chromium.launch({
  executablePath: process.env.RENDAL_CHROMIUM ?? "/usr/bin/chromium",
  args: ["--headless", "--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-sync"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

// The page takes the times itself: to ask it from outside takes as long as what is measured.
await page.addInitScript(() => {
  const times = (window.times = { begun: 0, listed: 0, messages: {} });
  const begin = () => (times.begun = performance.now());
  document.addEventListener("click", begin, true);
  document.addEventListener("keydown", begin, true);
  document.addEventListener(
    "load",
    ({ target }) => {
      if (target instanceof HTMLIFrameElement && target.title) {
        times.messages[target.title] = performance.now();
      }
    },
    true,
  );
  const look = () => {
    if (document.querySelector('[aria-label="Parcels of the round"] [role=cell] button')) {
      times.listed = performance.now();
    } else {
      requestAnimationFrame(look);
    }
  };
  requestAnimationFrame(look);
});
const takenFor = async (customer) => {
  const title = `Message to ${customer}`;
  await page.waitForFunction((title) => window.times.messages[title], title);
  return page.evaluate((title) => {
    const { begun, listed, messages } = window.times;
    return { listed: listed - begun, seen: messages[title] - begun };
  }, title);
};

await page.goto(`${address}/sign-in`);
await page.getByLabel("Name").fill(name);
await page.getByLabel("Password").fill(password);
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("navigation", { name: "Places" }).waitFor();
const parcels = page.getByRole("table", { name: "Parcels of the round" }).getByRole("button");
const open = async () => {
  await page.goto(`${address}/books/${book}/rounds`);
  await page.getByRole("link", { name: round, exact: true }).click();
  await parcels.first().waitFor();
  const names = await parcels.allTextContents();
  return { names, ...(await takenFor(names[0])) };
};

// The first time counts for nothing: a server that runs has opened rounds before.
await open();
const openings = [];
for (let i = 0; i < 5; i++) {
  openings.push(await open());
}

const steps = [];
for (const customer of openings[0].names.slice(1, Number(next) + 1)) {
  await page.keyboard.press("j");
  steps.push((await takenFor(customer)).seen);
}
const middle = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
console.log(
  `${middle(openings.map((o) => o.listed))} ${middle(openings.map((o) => o.seen - o.listed))} ${middle(steps)}`,
);
await browser.close();
