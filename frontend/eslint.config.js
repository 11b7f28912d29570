import js from "@eslint/js";
import { createTypeScriptImportResolver } from "eslint-import-resolver-typescript";
import importX from "eslint-plugin-import-x";
import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** The rooms that views share, lowest first: each imports only from rooms before it. */
const ROOMS = ["language", "api", "ui", "viewer", "writing", "taking-in", "log", "laid", "submission", "show", "live", "sharing", "cupboard", "filtering", "app"];
/** A view never imports another one; what two of them need is a room. */
const VIEWS = ["agreement", "caseload", "handins", "looking", "pegs", "pile", "pockets", "setup", "starting", "template", "worklist"];
const folder = (name) => `./src/${name}`;
const ZONES = [
  ...ROOMS.map((room, at) => ({
    target: folder(room),
    from: [...ROOMS.slice(at + 1), ...VIEWS].map(folder),
    message: `“${room}” stands below it: imports go one way.`,
  })),
  ...VIEWS.map((view) => ({
    target: folder(view),
    from: VIEWS.filter((other) => other !== view).map(folder),
    message: "A view never imports another view: what both need is a room of its own.",
  })),
];

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.gen.ts"] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked,
  jsxA11y.flatConfigs.strict,
  reactHooks.configs.flat["recommended-latest"],
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      "@typescript-eslint/no-confusing-void-expression": "off",
      // What a person reads stands in the catalogue of its view.
      "no-restricted-syntax": [
        "error",
        { selector: "JSXText[value=/[A-Za-z]{2}/]", message: "A text for people stands in the catalogue of its view (texts.ts)." },
        { selector: "JSXAttribute[name.name=/^(aria-label|aria-description|title|alt|placeholder|label|hint|none)$/] > Literal[value=/[A-Za-z]{2}/]", message: "A text for people stands in the catalogue of its view (texts.ts)." },
      ],
      // A function that needs more says why on its line.
      complexity: ["error", 10],
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: { attributes: false } }],
    },
  },
  {
    plugins: { "import-x": importX },
    settings: { "import-x/resolver-next": [createTypeScriptImportResolver()] },
    rules: {
      "import-x/no-cycle": ["error", { ignoreExternal: true }],
      "import-x/no-restricted-paths": ["error", { basePath: import.meta.dirname, zones: ZONES }],
    },
  },
  { files: ["*.js", "*.ts"], ...tseslint.configs.disableTypeChecked },
);
