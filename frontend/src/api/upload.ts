/** Sending one file to be read, where there is no progress to show. */
import { csrfToken } from "./client";
import { problemOf, unreachable } from "./problem";

/** The answer to a posted file, or its problem thrown. */
export async function upload<T>(address: string, file: File): Promise<T> {
  const body = new FormData();
  body.append("file", file);
  const response = await fetch(address, { method: "POST", body, headers: { "X-CSRFToken": csrfToken() } }).catch(() => {
    throw unreachable();
  });
  const found: unknown = await response.json().catch(() => null);
  if (!response.ok) throw problemOf(found, response.status);
  return found as T;
}
