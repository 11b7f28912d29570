/** Sending one file to be read, where there is no progress to show; asking for one. */
import { csrfToken } from "./client";
import { problemOf, unreachable } from "./problem";

const KEPT = 10_000;
/** Milliseconds for which a file stays at hand while the browser keeps it. */

/** The answer to a posted file, or its problem thrown. */
export async function upload<T>(address: string, file: File, fields: Record<string, string> = {}): Promise<T> {
  const body = new FormData();
  body.append("file", file);
  Object.entries(fields).forEach(([name, value]) => body.append(name, value));
  const response = await fetch(address, { method: "POST", body, headers: { "X-CSRFToken": csrfToken() } }).catch(() => {
    throw unreachable();
  });
  const found: unknown = await response.json().catch(() => null);
  if (!response.ok) throw problemOf(found, response.status);
  return found as T;
}

/** Ask for a file and let the browser keep it; its problem is thrown. */
export async function download(address: string, body: object, name: string): Promise<void> {
  const headers = { "Content-Type": "application/json", "X-CSRFToken": csrfToken() };
  const response = await fetch(address, { method: "POST", headers, body: JSON.stringify(body) }).catch(() => {
    throw unreachable();
  });
  if (!response.ok) throw problemOf(await response.json().catch(() => null), response.status);
  const content = URL.createObjectURL(await response.blob());
  const link = document.createElement("a");
  link.href = content;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(content), KEPT);
}
