/** Where each text is saved, by its name on this device: the same for a field that is open and for a draft left behind. */
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import type { Saved } from "./keeper";

const KEEPALIVE = 15_000;
/** Characters up to which a browser lets a save outlive its page (64 kB for all of them). */

const NOTHING_BACK = 2 ** 31;
/** Later than any update: what others wrote is not asked for. */

export type SaveText = (text: string, version: number, base: string) => Promise<Saved>;

function rich(found: Schema["SavedShape"] | Schema["PageShape"]): Saved {
  return { text: found.html || found.text, version: found.version, merged: found.merged };
}

/** How the text of this name is saved; null for a name that is none. ``title`` is that of a loose page. */
export function saverOf(name: string, title = ""): SaveText | null {
  const [kind, first, second] = name.split("/");
  const one = Number(first);
  if (kind === "reflection") {
    return async (text, version, base) =>
      data(client.PUT("/api/evidence/{evidence_id}/reflection", { params: { path: { evidence_id: one } }, body: { text, version, base }, keepalive: text.length + base.length < KEEPALIVE }));
  }
  if (kind === "page") {
    const path = { portfolio_id: one, pocket_id: Number(second) };
    return async (html, version, base) =>
      rich(await data(client.PUT("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/page", { params: { path }, body: { text: "", html, version, base }, keepalive: html.length + base.length < KEEPALIVE })));
  }
  if (kind === "text") {
    return async (html, version, base) =>
      rich(await data(client.PUT("/api/texts/{artefact_id}", { params: { path: { artefact_id: one } }, body: { text: "", html, version, base }, keepalive: html.length + base.length < KEEPALIVE })));
  }
  if (kind === "loose") {
    return async (html, version, base) => {
      const path = { params: { path: { page_id: one } } };
      const named = title || (await data(client.GET("/api/pages/{page_id}", path))).title;
      return rich(await data(client.PUT("/api/pages/{page_id}", { ...path, body: { title: named, text: "", html, version, base }, keepalive: html.length + base.length < KEEPALIVE })));
    };
  }
  if (kind === "shared") {
    // An update of a page that is filled together, under the writer id that it was written with.
    const body = { after: NOTHING_BACK, client: Number(second), update: "" };
    return async (text) => {
      const { number } = await data(client.POST("/api/shared/{shared_id}/exchange", { params: { path: { shared_id: one } }, body: { ...body, update: text }, keepalive: text.length < KEEPALIVE }));
      return { text, version: number };
    };
  }
  return null;
}
