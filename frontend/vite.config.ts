import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { texts } from "./texts.js";

export default defineConfig({
  plugins: [texts(), react(), tailwindcss()],
  // Messages are parsed when this is built: their parser stays at home.
  resolve: { alias: { "@formatjs/icu-messageformat-parser": "@formatjs/icu-messageformat-parser/no-parser.js" } },
  build: {
    assetsDir: "static",
    target: "es2022",
    // The content policy allows no inline anything, so nothing is turned into a data address.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
});
