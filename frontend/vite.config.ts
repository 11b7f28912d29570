import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    assetsDir: "static",
    target: "es2022",
    // The content policy allows no inline anything, so nothing is turned into a data address.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
});
