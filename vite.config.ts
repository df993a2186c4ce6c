import { resolve } from "node:path";
import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [tailwindcss(), reactRouter()],
  resolve: {
    alias: {
      "~": resolve(import.meta.dirname, "app"),
      "@core": resolve(import.meta.dirname, "core"),
      "@db": resolve(import.meta.dirname, "db"),
    },
  },
  build: isSsrBuild ? { rolldownOptions: { input: "./server/app.ts" } } : {},
}));
