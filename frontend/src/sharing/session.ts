/** A shared page that is open: its document, what was written here and is not taken yet, and the exchange with the server.
 *
 * What is written is kept in this browser at once and goes with the next exchange; what was left behind by an earlier
 * opening goes first, under the writer id that it was written with.
 */
import { applyUpdate, Doc, mergeUpdates } from "yjs";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { allDrafts, dropDraft, keepDraft } from "../writing/drafts";
import { saverOf } from "../writing/saving";
import { fromBase64, toBase64 } from "./bytes";
import { Authors } from "./whose";

const AGAIN = 3000;
/** Milliseconds until the next try while the server is away. */
const REFUSED_AGAIN = 10_000;
/** The same where it is refused: until it is open again, or for good. */
const KEPT_AFTER = 150;
/** Milliseconds of rest after which what was written is kept in this browser. */
const TOLD_AFTER = 30_000;
/** Milliseconds between two looks at what the server says of who wrote; how much is counted here meanwhile. */
const WRITING = 15_000;
/** Milliseconds after which somebody who wrote no longer writes now. */
const SERVER = "server";

export type Writer = Schema["WriterShape"];

/** What of it a component shows. */
export interface Shown {
  /** ``refused``: what was written is not taken, and stays here to be copied. */
  at: "saved" | "writing" | "away" | "refused";
  problem: Problem | null;
  closed: string;
  question: string;
  /** Whether the staff have it open. */
  isOpen: boolean;
  people: Writer[];
  /** Counts what came or was written, so that whose words stand where is found anew. */
  turn: number;
  /** What an earlier opening on this device left behind is in the page again. */
  leftBehind: boolean;
  /** Who wrote a moment ago (persons). */
  now: number[];
}

export class SharedSession {
  readonly doc = new Doc();
  readonly authors: Authors;
  private shown: Shown;
  private number: number;
  private pending: Uint8Array[] = [];
  private sending: Promise<boolean> | null = null;
  private apart = 600;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private keeping: ReturnType<typeof setTimeout> | undefined;
  private readonly writing = new Map<number, number>();
  private told = 0;
  /** What is refused would be taken if the page were open. */
  private waits = false;
  private ended = false;
  private readonly listeners = new Set<() => void>();

  constructor(
    readonly page: Schema["OpenedSharedPage"],
    private readonly person: number,
  ) {
    this.authors = new Authors(page.client, person);
    this.authors.addAll(page.spans);
    if (page.client !== null) this.doc.clientID = page.client;
    if (page.data) applyUpdate(this.doc, fromBase64(page.data), SERVER);
    this.number = page.number;
    this.shown = { at: "saved", problem: null, closed: page.closed, question: page.question, isOpen: page.is_open, people: page.people, turn: 0, leftBehind: false, now: [] };
    this.doc.on("update", this.wrote);
  }

  readonly snapshot = (): Shown => this.shown;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Begin to exchange. What an earlier opening left behind is sent first. */
  begin(): void {
    this.ended = false;
    document.addEventListener("visibilitychange", this.seen);
    window.addEventListener("pagehide", this.seen);
    void this.sendLeftBehind().then(() => this.later(0));
  }

  end(): void {
    document.removeEventListener("visibilitychange", this.seen);
    window.removeEventListener("pagehide", this.seen);
    void this.push();
    this.ended = true;
    clearTimeout(this.timer);
  }

  /** Send what is not taken yet; false where it could not be. */
  readonly push = async (): Promise<boolean> => {
    if (this.sending) await this.sending;
    return this.pending.length === 0 || (await this.exchange());
  };

  /** What this person of the staff has just said of it. */
  readonly led = (said: { question: string; is_open: boolean }): void => this.show({ question: said.question, isOpen: said.is_open });

  /** How much each wrote of what stands there, as it is counted here: the server's count is the one that holds. */
  readonly counted = (words: Map<number, number>): void => {
    const people = this.shown.people.map((one) => ({ ...one, words: words.get(one.person) ?? 0, last: one.last ?? (words.has(one.person) ? new Date().toISOString() : null), times: Math.max(one.times, words.has(one.person) ? 1 : 0) }));
    if (people.some((one, at) => one.words !== this.shown.people[at]?.words)) this.show({ people });
  };

  /** Look now for what came. */
  readonly look = (): void => void this.exchange();

  private get name(): string {
    return `shared/${this.page.id}/${this.page.client ?? 0}`;
  }

  private show(change: Partial<Shown>): void {
    this.shown = { ...this.shown, ...change };
    this.listeners.forEach((tell) => tell());
  }

  private readonly wrote = (update: Uint8Array, origin: unknown): void => {
    if (origin === SERVER || this.page.client === null) {
      this.show({ turn: this.shown.turn + 1 });
      return;
    }
    this.pending.push(update);
    this.show({ at: this.shown.at === "refused" || this.shown.at === "away" ? this.shown.at : "writing", turn: this.shown.turn + 1 });
    clearTimeout(this.keeping);
    this.keeping = setTimeout(this.keep, KEPT_AFTER);
    if (this.apart > 600) {
      this.apart = 600;
      this.later(this.apart);
    }
  };

  private readonly keep = (): void => {
    if (this.pending.length === 0) void dropDraft(this.person, this.name);
    else void keepDraft(this.person, this.name, { text: toBase64(mergeUpdates(this.pending)), base: 0 });
  };

  private readonly seen = (): void => {
    if (document.visibilityState === "hidden") {
      this.keep();
      void this.push();
    } else this.later(0);
  };

  private later(after: number): void {
    clearTimeout(this.timer);
    if (!this.ended) this.timer = setTimeout(() => void this.exchange(), after);
  }

  /** One exchange: mine go, the others' come. */
  private exchange(): Promise<boolean> {
    this.sending ??= this.exchangeNow().finally(() => {
      this.sending = null;
    });
    return this.sending;
  }

  private async exchangeNow(): Promise<boolean> {
    // As it is now: what is written while this is on its way goes with the next one.
    const going = this.shown.at === "refused" ? [] : [...this.pending];
    const update = going.length > 0 ? mergeUpdates(going) : null;
    try {
      const came = await data(
        client.POST("/api/shared/{shared_id}/exchange", {
          params: { path: { shared_id: this.page.id } },
          body: { after: this.number, client: this.page.client, update: update && toBase64(update) },
          keepalive: (update?.length ?? 0) < 30_000,
        }),
      );
      this.pending = this.pending.slice(going.length);
      this.keep();
      this.take(came);
      this.later(this.apart);
      return this.pending.length === 0;
    } catch (error) {
      this.failed(error);
      return false;
    }
  }

  private take(came: Schema["ExchangedShape"]): void {
    const news = came.number > this.number;
    for (const one of came.updates) {
      this.authors.add(one);
      this.writing.set(one.person, Date.now());
      applyUpdate(this.doc, fromBase64(one.data), SERVER);
    }
    if (came.data) applyUpdate(this.doc, fromBase64(came.data), SERVER);
    this.number = came.number;
    this.apart = this.pending.length > 0 ? Math.min(came.apart, 600) : came.apart;
    const at = this.stateAfter(came);
    this.show({ at, now: this.writingNow(), closed: came.closed, question: came.question, isOpen: came.is_open, turn: this.shown.turn + 1, problem: at === "refused" ? this.shown.problem : null });
    // Whoever was far behind, or has words that the server put in again, asks whose they are.
    if (news && (came.data !== null || Date.now() - this.told > TOLD_AFTER)) void this.askWhose();
  }

  /** What was refused since nobody may write goes again as soon as they may. */
  private stateAfter(came: Schema["ExchangedShape"]): Shown["at"] {
    if (this.shown.at === "refused" && !(this.waits && came.closed === "")) return "refused";
    return this.pending.length > 0 ? "writing" : "saved";
  }

  private writingNow(): number[] {
    const since = Date.now() - WRITING;
    return [...this.writing].filter(([, at]) => at > since).map(([person]) => person);
  }

  private async askWhose(): Promise<void> {
    this.told = Date.now();
    try {
      const found = await data(client.GET("/api/shared/{shared_id}/written", { params: { path: { shared_id: this.page.id } } }));
      this.authors.addAll(found.spans);
      this.show({ people: found.people, turn: this.shown.turn + 1 });
    } catch {
      // The next exchange asks again.
    }
  }

  private failed(error: unknown): void {
    if (error instanceof Problem && !error.away && error.status !== 401) {
      const at = this.pending.length > 0 ? "refused" : this.shown.at;
      this.waits = error.status === 403;
      this.show({ at, problem: error, closed: this.shown.closed || error.title });
    } else this.show({ at: "away" });
    this.later(error instanceof Problem && !error.away ? REFUSED_AGAIN : AGAIN);
  }

  /** What an earlier opening kept and never got to the server: into the page, and to the server under its own id. */
  private async sendLeftBehind(): Promise<void> {
    const before = `shared/${this.page.id}/`;
    for (const [name, draft] of await allDrafts(this.person)) {
      if (!name.startsWith(before) || name === this.name) continue;
      applyUpdate(this.doc, fromBase64(draft.text), SERVER);
      try {
        await saverOf(name)?.(draft.text, 0, "");
        await dropDraft(this.person, name);
      } catch (error) {
        this.show({ leftBehind: true, problem: error instanceof Problem ? error : null });
      }
    }
  }
}
