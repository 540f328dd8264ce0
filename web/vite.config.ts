import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  // Beside the page, wherever that is served.
  base: "./",
  plugins: [react()],
  build: { outDir: "../artifacts/web", emptyOutDir: true, chunkSizeWarningLimit: 2000 },
  server: { proxy: { "/api": "http://127.0.0.1:8420" } },
  test: { include: ["src/**/*.test.ts", "src/**/*.test.tsx"] },
});
