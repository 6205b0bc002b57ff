import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

/** The pages of customers and crews: a small bundle of their own, which knows nothing of the program inside. */
export default defineConfig({
  root: "outside",
  base: "/outside/",
  publicDir: false,
  plugins: [react()],
  build: {
    outDir: "../dist/outside",
    emptyOutDir: true,
    rolldownOptions: { input: { index: "outside/index.html", crew: "outside/crew.html" } },
  },
});
