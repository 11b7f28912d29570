/**
 * The catalogues of the interface, at build time: found in the code, their ICU messages parsed, other languages made.
 * ``node texts.js`` writes them all as JSON, for who translates or checks them.
 */
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { parse } from "@formatjs/icu-messageformat-parser";
import ts from "typescript";

const SOURCES = fileURLToPath(new URL("./src", import.meta.url));
const CATALOGUE = /(?:[tT]exts|words)\.ts$/;

/** The language that is nobody's: longer words, no plain letter, dates and numbers of another script than English. */
const PSEUDO = { name: "en-XA", locale: "el" };

/** Files that hold catalogues. */
function* catalogueFiles(folder = SOURCES) {
  for (const name of readdirSync(folder).sort()) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* catalogueFiles(path);
    else if (CATALOGUE.test(name)) yield path;
  }
}

function calls(code, visit) {
  const file = ts.createSourceFile("texts.ts", code, ts.ScriptTarget.Latest, true);
  (function walk(node) {
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression)) visit(node.expression.text, node);
    ts.forEachChild(node, walk);
  })(file);
}

function isMessage(node) {
  return ts.isCallExpression(node) && ts.isIdentifier(node.expression) && ["message", "rich"].includes(node.expression.text) && ts.isStringLiteralLike(node.arguments[0]);
}

/** ICU text of a message as its parsed form; a mistake in it stops the build and says where. */
function parsed(text, where) {
  try {
    return parse(text, { captureLocation: false });
  } catch (error) {
    throw new Error(`${where}: “${text}” is no ICU message: ${error.message}`, { cause: error });
  }
}

/** What stands in a catalogue: its texts as strings, its messages as ``{icu}``, in the shape of the code. */
function textsOf(node) {
  if (ts.isStringLiteralLike(node)) return node.text;
  if (isMessage(node)) return { icu: node.arguments[0].text };
  if (ts.isAsExpression(node)) return textsOf(node.expression);
  if (ts.isArrayLiteralExpression(node)) return node.elements.map(textsOf);
  if (ts.isObjectLiteralExpression(node)) {
    const named = node.properties.filter((one) => ts.isPropertyAssignment(one) && (ts.isIdentifier(one.name) || ts.isStringLiteralLike(one.name) || ts.isNumericLiteral(one.name)) && one.name.text !== "value");
    return Object.fromEntries(named.map((one) => [one.name.text, textsOf(one.initializer)]).filter(([, text]) => text !== undefined));
  }
  return undefined;
}

/** Every catalogue by its name. Two of the same name stop the build. */
export function catalogues() {
  const found = {};
  for (const path of catalogueFiles())
    calls(readFileSync(path, "utf8"), (called, node) => {
      if (called !== "catalogue") return;
      const name = node.arguments[0].text;
      if (name in found) throw new Error(`${path}: there is a catalogue “${name}” already.`);
      found[name] = textsOf(node.arguments[1]);
    });
  return found;
}

const LETTERS = Object.fromEntries([..."abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ"].map((letter, at) => [letter, [..."áƀćđéƒĝĥíĵķļḿńóƥɋŕśţúṽŵẋýžÁƁĆĐÉƑĜĤÍĴĶĻḾŃÓƤɊŔŚŢÚṼŴẊÝŽ"][at]]));

/** A text as the made-up language has it: every letter with a sign, and a third longer as other languages are. */
export function pseudo(text) {
  return text.replace(/[A-Za-z]/g, (letter) => (/[aeiou]/i.test(letter) ? LETTERS[letter].repeat(2) : LETTERS[letter]));
}

function pseudoParts(parts) {
  // Kinds of FormatJS's parsed form: 0 is words; 5 and 6 are choices and plurals, whose branches hold parts again; 8 a tag.
  return parts.map((part) => {
    if (part.type === 0) return { ...part, value: pseudo(part.value) };
    if (part.options) return { ...part, options: Object.fromEntries(Object.entries(part.options).map(([name, one]) => [name, { ...one, value: pseudoParts(one.value) }])) };
    return part.children ? { ...part, children: pseudoParts(part.children) } : part;
  });
}

function inPseudo(texts, where) {
  if (typeof texts === "string") return pseudo(texts);
  if (Array.isArray(texts)) return texts.map((one) => inPseudo(one, where));
  if (typeof texts.icu === "string") return pseudoParts(parsed(texts.icu, where));
  return Object.fromEntries(Object.entries(texts).map(([name, one]) => [name, inPseudo(one, `${where}.${name}`)]));
}

/** Some catalogues in every language there is. */
export function inEveryLanguage(...names) {
  const english = Object.fromEntries(Object.entries(catalogues()).filter(([name]) => names.includes(name)));
  return { en: english, [PSEUDO.name]: inPseudo(english, "texts") };
}

/** For Vite: messages reach the browser parsed, and languages as parts of their own. */
export function texts() {
  return {
    name: "coat-peg-texts",
    enforce: "pre",
    resolveId: (id) => (id === "virtual:languages" || id.startsWith("virtual:texts/") ? `\0${id}` : undefined),
    load(id) {
      if (id === "\0virtual:languages") return `export const LANGUAGES = { "${PSEUDO.name}": { locale: "${PSEUDO.locale}", load: () => import("virtual:texts/${PSEUDO.name}") } };`;
      if (id === `\0virtual:texts/${PSEUDO.name}`) return `export default ${JSON.stringify(inPseudo(catalogues(), "texts"))};`;
      return undefined;
    },
    transform(code, id) {
      if (!CATALOGUE.test(id)) return undefined;
      const edits = [];
      calls(code, (_, node) => {
        if (!isMessage(node)) return;
        const [message] = node.arguments;
        edits.push([message.getStart(), message.end, JSON.stringify(parsed(message.text, id))]);
      });
      if (edits.length === 0) return undefined;
      let made = code;
      for (const [from, to, text] of edits.reverse()) made = made.slice(0, from) + text + made.slice(to);
      return { code: made, map: null };
    },
  };
}

if (process.argv[1] && resolve(process.argv[1]) === fileURLToPath(import.meta.url)) process.stdout.write(`${JSON.stringify(catalogues(), null, 2)}\n`);
