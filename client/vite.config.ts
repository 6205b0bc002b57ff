import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: {
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // What every page needs; other libraries come with the pages that use them.
            {
              name: "libraries",
              test: /node_modules[\\/](react|react-dom|scheduler|react-router|@emotion|@tanstack[\\/](react-query|query-core)|openapi-fetch|idb)[\\/]/,
            },
            { name: "job", test: /src[\\/](job|figure|controls)[\\/]/ },
          ],
        },
      },
    },
  },
  // Plain TypeScript is tested by itself; what is drawn, in the browser.
  test: { include: ["src/**/*.test.ts"] },
  server: { proxy: { "/api": "http://127.0.0.1:5080" } },
});
