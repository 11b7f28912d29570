/** Versions of a pocket from one line of ranges, or from one text with a part for each. */
import { newVersion } from "./fields";
import type { Fields, VersionFields } from "./fields";

const RANGE = /^\s*([A-Za-z]{1,3})\s*(?:[\u2013\u2014-]|to)\s*([A-Za-z]{1,3})\s*$/;
const AT_FRONT = /^\s*([A-Za-z]{1,3})\s*(?:[\u2013\u2014-]|to)\s*([A-Za-z]{1,3})\s*[:.]\s*/;
const BETWEEN = /^\s*(?:-{3,}|={3,}|\*{3,})\s*$/m;

/** ``A–H, I–P, Q–Z`` of the versions. */
export function rangesOf(versions: VersionFields[]): string {
  return versions.map((one) => `${one.first.toUpperCase()}–${one.last.toUpperCase()}`).join(", ");
}

/** The versions with the ranges that a line says; null where it says none, or fewer than two. Their texts stay, in order. */
export function withRanges(line: string, versions: VersionFields[]): VersionFields[] | null {
  const found = line.split(/[,;]/).map((one) => RANGE.exec(one));
  if (found.length < 2 || found.some((one) => one === null)) return null;
  return found.map((one, at) => ({ ...(versions[at] ?? newVersion()), first: (one?.[1] ?? "").toUpperCase(), last: (one?.[2] ?? "").toUpperCase() }));
}

/** The parts of a text: at lines of strokes, else at ranges that lines begin with, else at empty lines. */
function partsOf(text: string): string[] {
  if (BETWEEN.test(text)) return text.split(new RegExp(BETWEEN, "m"));
  const lines = text.split("\n");
  if (lines.filter((line) => AT_FRONT.test(line)).length < 2) return text.split(/\n\s*\n/);
  const parts: string[] = [];
  for (const line of lines) {
    if (AT_FRONT.test(line) || parts.length === 0) parts.push(line);
    else parts.push(`${parts.pop() ?? ""}\n${line}`);
  }
  return parts;
}

/** The versions with a part of a text each as their directions, and with its range where it begins with one. */
export function withTexts(text: string, versions: VersionFields[]): VersionFields[] {
  const parts = partsOf(text.replace(/\r\n?/g, "\n")).map((part) => part.trim()).filter(Boolean);
  const made = parts.map((part, at) => {
    const range = AT_FRONT.exec(part);
    const version = versions[at] ?? newVersion();
    const ends = range ? { first: (range[1] ?? "").toUpperCase(), last: (range[2] ?? "").toUpperCase() } : {};
    return { ...version, ...ends, directions: asHtml(range ? part.slice(range[0].length) : part) };
  });
  return [...made, ...versions.slice(made.length)];
}

interface WithFiles {
  versions: VersionFields[];
  given: { file: File; version: string }[];
}

/** The versions with a file each, in order, more of them where there are more files. A plain text becomes the starter of a page; what is given as it is stands beside. */
export async function withFiles(files: File[], versions: VersionFields[], kind: Fields["kind"]): Promise<WithFiles> {
  const all = [...versions, ...files.slice(versions.length).map(() => newVersion())];
  const given: WithFiles["given"] = [];
  for (const [at, file] of files.entries()) {
    const version = all[at];
    if (version === undefined) continue;
    if (kind === "page" && file.type === "text/plain") all[at] = { ...version, starter: asHtml((await file.text()).replace(/\r\n?/g, "\n").trim()) };
    else given.push({ file, version: version.key });
  }
  return { versions: all, given };
}

function asHtml(text: string): string {
  const escaped = text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");
  return escaped
    .split("\n")
    .map((line) => `<p>${line}</p>`)
    .join("");
}
