import { defineConfig } from "@playwright/test";

// ./rendal test and ./rendal screenshots choose free ports and a folder of their own, and say which.
const port = process.env["RENDAL_E2E_PORT"] ?? "8451";
const mailPort = process.env["RENDAL_E2E_MAIL_PORT"] ?? "2551";
const imapPort = process.env["RENDAL_E2E_IMAP_PORT"] ?? "2552";
const data = process.env["RENDAL_E2E_DATA"] ?? "/tmp/rendal-e2e";

export default defineConfig({
  outputDir: "test-results",
  // Each journey has a book of its own; only the views for everybody look at the sample firm's, and they stand in one file.
  workers: 2,
  forbidOnly: Boolean(process.env["CI"]),
  // Long enough for a machine that is busy with other things: no test is about speed.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  reporter: process.env["RENDAL_E2E_REPORT"]
    ? [["list"], ["json", { outputFile: process.env["RENDAL_E2E_REPORT"] }]]
    : [["list"]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    timezoneId: "Europe/London",
    actionTimeout: 60_000,
    trace: "off",
    // A list that still grows moves its options between the press and the release of the button on a busy machine.
    contextOptions: { reducedMotion: "reduce" },
    launchOptions: {
      executablePath: process.env["RENDAL_CHROMIUM"] ?? "/usr/bin/chromium",
      args: [
        "--headless",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  projects: [
    { name: "journeys", testDir: "journeys" },
    { name: "pictures", testDir: "pictures" },
  ],
  webServer: {
    command: `exec ../../rendal demo --port ${port} --mail-port ${mailPort} --imap-port ${imapPort} --data ${data}`,
    url: `http://127.0.0.1:${port}/`,
    timeout: 600_000,
    reuseExistingServer: !process.env["CI"],
    stdout: "ignore",
    stderr: "pipe",
    gracefulShutdown: { signal: "SIGTERM", timeout: 30_000 },
  },
});
