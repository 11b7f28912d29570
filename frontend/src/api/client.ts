/** The one client of the API, typed from its OpenAPI document. */
import createClient from "openapi-fetch";
import { setConnection } from "./connection";
import { Problem, problemOf, unreachable } from "./problem";
import type { components, paths } from "./schema.gen";

export type Schema = components["schemas"];

/** The CSRF token from its cookie. */
export function csrfToken(): string {
  return /(?:^|; )coatpeg_csrf=([^;]+)/.exec(document.cookie)?.[1] ?? "";
}

const PATIENCE = 20_000;
/** Milliseconds before a request counts as lost: longer than any answer, shorter than a person waits. */

export const client = createClient<paths>({
  baseUrl: "/",
  fetch: async (request: Request) => {
    // Called off when time is up, or by who asked: a page that is left waits for nothing more.
    const off = new AbortController();
    setTimeout(() => off.abort(), PATIENCE);
    request.signal.addEventListener("abort", () => off.abort());
    const limited = new Request(request, { signal: off.signal });
    try {
      const response = await fetch(limited);
      setConnection(response.status === 401 ? "signed-out" : response.status >= 502 ? "away" : "there");
      return response;
    } catch (error) {
      if (request.signal.aborted) throw error;
      setConnection("away");
      throw unreachable();
    }
  },
});

client.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
});

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or its problem thrown. */
export async function data<T>(answer: Promise<Answer<T>>): Promise<T> {
  const { data: found, error, response } = await answer;
  if (!response.ok) throw problemOf(error, response.status);
  return found as T;
}

/** Whether an error is a problem of this kind. */
export function isProblem(error: unknown, kind: string): error is Problem {
  return error instanceof Problem && error.kind === kind;
}
