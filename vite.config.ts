import { resolve } from "node:path";
import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [tailwindcss(), reactRouter()],
  resolve: {
    alias: {
      // Its module build has no default export, as Node's has; one import must serve both.
      wavefile: resolve(import.meta.dirname, "node_modules/wavefile/dist/wavefile.js"),
      "~": resolve(import.meta.dirname, "app"),
      "@core": resolve(import.meta.dirname, "core"),
      "@db": resolve(import.meta.dirname, "db"),
      "@words": resolve(import.meta.dirname, "words"),
    },
  },
  build: isSsrBuild ? { rolldownOptions: { input: "./server/app.ts" } } : {},
}));
