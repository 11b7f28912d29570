import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import type { Plugin } from "vite";
import { inEveryLanguage, texts } from "./texts.js";

/** The face that everything is set in comes with the page, not after its styles: what is drawn does not move when it comes. */
function fontFirst(): Plugin {
  return {
    name: "coat-peg-font-first",
    transformIndexHtml: {
      order: "post",
      handler: (_, { bundle }) =>
        Object.keys(bundle ?? {})
          .filter((name) => /atkinson-hyperlegible-next-latin-wght-normal/.test(name))
          .map((name) => ({ tag: "link", attrs: { rel: "preload", as: "font", type: "font/woff2", crossorigin: "", href: `/${name}` }, injectTo: "head" as const })),
    },
  };
}

/** What the page begins with, its styles too, is asked for with it, although its language is loaded before it. */
function startFirst(): Plugin {
  return {
    name: "coat-peg-start-first",
    transformIndexHtml: {
      order: "post",
      handler: (_, { bundle = {} }) => {
        const start = Object.values(bundle).find((one) => one.type === "chunk" && one.facadeModuleId?.endsWith("/start.tsx"));
        if (start?.type !== "chunk") return [];
        const styles = [...(start.viteMetadata?.importedCss ?? [])].map((name) => ({ tag: "link", attrs: { rel: "stylesheet", crossorigin: "", href: `/${name}` }, injectTo: "head" as const }));
        return [...styles, ...[start.fileName, ...start.imports].map((name) => ({ tag: "link", attrs: { rel: "modulepreload", crossorigin: "", href: `/${name}` }, injectTo: "head" as const }))];
      },
    },
  };
}

/** Which files each view needs beside what every page begins with, for the server to name in its page. */
function partsOfViews(): Plugin {
  return {
    name: "coat-peg-parts-of-views",
    generateBundle: {
      order: "post",
      handler(_, bundle) {
        const parts = Object.values(bundle).filter((one) => one.type === "chunk");
        const named = new Map(parts.map((one) => [one.fileName, one]));
        const needs = (name: string, found = new Set<string>()): Set<string> => {
          if (!found.has(name)) for (const other of [...(found.add(name), named.get(name)?.imports ?? [])]) needs(other, found);
          return found;
        };
        const begun = new Set(parts.filter((one) => one.isEntry || one.facadeModuleId?.endsWith("/start.tsx")).flatMap((one) => [...needs(one.fileName)]));
        const views = parts.filter((one) => one.isDynamicEntry && one.name.endsWith("View"));
        // What everything shares is evaluated before what the page begins with: the other way round nothing would begin.
        for (const one of parts) if (one.name === "shared" && [...needs(one.fileName)].some((name) => named.get(name)?.facadeModuleId?.endsWith("/start.tsx"))) this.error("The shared part needs the start; see codeSplitting.");
        const table = Object.fromEntries(views.map((one) => [one.name, [...needs(one.fileName)].filter((name) => !begun.has(name)).map((name) => `/${name}`)]));
        this.emitFile({ type: "asset", fileName: "views.json", source: JSON.stringify(table) });
      },
    },
  };
}

/** The words that a page begins with, for the server to draw before any script has run. */
function beginsWith(): Plugin {
  return {
    name: "coat-peg-begins-with",
    generateBundle() {
      const words = Object.entries(inEveryLanguage("app", "app.help", "app.studentHelp")).map(([language, of]) => [
        language,
        { name: of.app.name, putAway: of.app.putAway, help: of["app.help"], studentHelp: of["app.studentHelp"] },
      ]);
      this.emitFile({ type: "asset", fileName: "begin.json", source: JSON.stringify(Object.fromEntries(words)) });
    },
  };
}

export default defineConfig({
  plugins: [texts(), fontFirst(), startFirst(), partsOfViews(), beginsWith(), react(), tailwindcss()],
  // Messages are parsed when this is built: their parser stays at home.
  resolve: { alias: { "@formatjs/icu-messageformat-parser": "@formatjs/icu-messageformat-parser/no-parser.js" } },
  build: {
    assetsDir: "static",
    target: "es2022",
    // The content policy allows no inline anything, so nothing is turned into a data address.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    // What most views share is one part: dozens of parts of a few hundred bytes cost more than they spare. The language
    // stands alone, since it is settled before anything that is written in it is evaluated; menus and dialogs are no part
    // of a first view, however many views have some, and need what is evaluated after this part.
    rolldownOptions: {
      output: { codeSplitting: { includeDependenciesRecursively: false, groups: [
          // Small parts of the views that a class is seen in: each alone would cost as much again in what goes with an answer.
          { name: "class", minShareCount: 2, test: /(src.ui.(people.(ListedName|PegPicture|find)|words|Coat)|src.app.Rail|src.cupboard.(dragging|openFrom|queries)|src.(pegs.texts|filtering.(filters|texts|MoreFilters)))\.tsx?$|lucide-react.dist.esm.icons.(list|download|search|plus|pin|sigma)\.mjs$|pegs\.svg/ },
          // What the start shares with the views.
          { name: "begun", minShareCount: 2, test: /lucide-react.dist.esm.icons.cloud-off\.mjs$|src.app.texts\.ts$|src.ui.reading.reading\.ts$/ },
          // Asking and telling the server: one package, all of it evaluated before what asks.
          { name: "shared", test: /node_modules.@tanstack.(query-core|react-query)/ },
          { name: "shared", minShareCount: 22, test: /node_modules.(?!@headlessui|@react-aria|@floating-ui)|src.(?!language.chosen|main|ui.Modal)/ },
        ] } },
    },
  },
});
