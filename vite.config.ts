import { resolve } from "node:path";
import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [tailwindcss(), reactRouter()],
  resolve: {
    alias: {
      // In the module build it has no default export, unlike in Node's, and one import must work in both.
      wavefile: resolve(import.meta.dirname, "node_modules/wavefile/dist/wavefile.js"),
      "~": resolve(import.meta.dirname, "app"),
      "@core": resolve(import.meta.dirname, "core"),
      "@db": resolve(import.meta.dirname, "db"),
      "@words": resolve(import.meta.dirname, "words"),
    },
  },
  build: isSsrBuild ? { rolldownOptions: { input: "./server/app.ts" } } : {},
}));
