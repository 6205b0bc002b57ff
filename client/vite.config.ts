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
            { name: "libraries", test: /node_modules[\\/](?!@microsoft)/ },
            { name: "shared", test: /src[\\/](controls|api|job|figure|shell)[\\/]/ },
          ],
        },
      },
    },
  },
  // Plain TypeScript is tested by itself; what is drawn, in the browser.
  test: { include: ["src/**/*.test.ts"] },
  server: { proxy: { "/api": "http://127.0.0.1:5080" } },
});
