import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  // Beside the page, wherever that is served.
  base: "./",
  plugins: [react()],
  css: { modules: { localsConvention: "camelCase" } },
  // Pages are loaded when they are gone to; their styles come with the first, so that none is drawn without.
  build: { outDir: "../artifacts/web", emptyOutDir: true, cssCodeSplit: false, chunkSizeWarningLimit: 1000 },
  server: { proxy: { "/api": "http://127.0.0.1:8420" } },
  test: {
    include: ["src/**/*.test.ts", "src/**/*.test.tsx"],
    setupFiles: ["src/testing/setup.ts"],
    testTimeout: 60_000,
  },
});
