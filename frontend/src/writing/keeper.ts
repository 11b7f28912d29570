/** Keeps one text: in the browser at once, on the server after a pause, through lost connections and other devices. */
import { Problem } from "../api/problem";
import { dropDraft, findDraft, keepDraft } from "./drafts";
import { TEXTS } from "./texts";

const PAUSE = 1000;
/** Milliseconds of rest after which a text is saved. */
const AGAIN = 3000;
/** Milliseconds between tries while the server is away. */

/** What a save makes of a text. */
export interface Saved {
  text: string;
  version: number;
  /** Somebody else had saved meanwhile, and both changes are in it. */
  merged?: boolean;
}

export type SaveState =
  | { at: "rest" }
  | { at: "typing" }
  | { at: "saving" }
  | { at: "saved"; when: Date; merged?: boolean }
  | { at: "away" }
  | { at: "two"; theirs: Saved }
  | { at: "refused"; problem: Problem }
  /** Locked meanwhile: what was typed on this device and never reached the server, beside the text that stands. */
  | { at: "left"; text: string };

/** What a field shows. */
export interface Kept {
  text: string;
  state: SaveState;
}

export type Save = (text: string, version: number, base: string) => Promise<Saved>;

export class Keeper {
  private kept: Kept;
  private base: number;
  private was: string;
  private dirty = false;
  private saving: Promise<boolean> | null = null;
  private open = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly listeners = new Set<() => void>();

  /** ``name`` names the text on this device; ``person`` is who types it, so nobody else gets it back. */
  constructor(
    readonly name: string,
    private readonly person: number,
    server: Saved,
    private save: Save,
  ) {
    this.kept = { text: server.text, state: { at: "rest" } };
    this.base = server.version;
    this.was = server.text;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): Kept => this.kept;

  private show(change: Partial<Kept>): void {
    this.kept = { ...this.kept, ...change };
    this.listeners.forEach((listener) => listener());
  }

  /** The way to save, as the newest render knows it. */
  saveWith(save: Save): void {
    this.save = save;
  }

  /** The person typed. */
  readonly change = (text: string): void => {
    const { at } = this.kept.state;
    this.dirty = true;
    this.show({ text, ...(at === "two" || at === "away" ? {} : { state: { at: "typing" } }) });
    void keepDraft(this.person, this.name, { text, base: this.base, was: this.was });
    if (at !== "two") this.later(PAUSE);
  };

  private later(milliseconds: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.push(), milliseconds);
  }

  /** Save now; true where nothing is left unsaved. A save that is under way is waited for first. */
  readonly push = async (): Promise<boolean> => {
    clearTimeout(this.timer);
    if (this.saving) await this.saving;
    if (!this.dirty) return true;
    if (this.kept.state.at === "two") return false;
    this.saving = this.send();
    try {
      return await this.saving;
    } finally {
      this.saving = null;
    }
  };

  private async send(): Promise<boolean> {
    const sent = this.kept.text;
    this.show({ state: { at: "saving" } });
    try {
      const saved = await this.save(sent, this.base, this.was);
      this.dirty = this.kept.text !== sent;
      // Typed on while both changes were put together: the next save puts them together again, from the same beginning.
      if (!(saved.merged && this.dirty)) {
        this.base = saved.version;
        this.was = saved.merged ? saved.text : sent;
      }
      if (this.dirty) {
        this.show({ state: { at: "typing" } });
        this.later(PAUSE);
      } else {
        await dropDraft(this.person, this.name);
        this.show({ ...(saved.merged ? { text: saved.text } : {}), state: { at: "saved", when: new Date(), merged: saved.merged ?? false } });
      }
    } catch (error) {
      this.failed(error instanceof Problem ? error : new Problem({ title: TEXTS.theTextCouldNotBe }, 500));
    }
    return !this.dirty;
  }

  private failed(problem: Problem): void {
    if (problem.kind === "stale" && typeof problem.more.text === "string") {
      const text = typeof problem.more.html === "string" && problem.more.html ? problem.more.html : problem.more.text;
      this.show({ state: { at: "two", theirs: { text, version: Number(problem.more.version) } } });
    } else if (problem.away || problem.status === 401) {
      this.show({ state: { at: "away" } });
      if (this.open) this.later(AGAIN);
    } else {
      this.show({ state: { at: "refused", problem } });
    }
  }

  /** Settle two texts: go on with ``chosen`` over the version that stands on the server. */
  readonly settle = (chosen: string, over: Saved): void => {
    this.base = over.version;
    this.was = over.text;
    this.show({ state: { at: "typing" } });
    this.change(chosen);
  };

  /** The server has a newer text: take it, unless something of ours is unsaved. */
  adopt(server: Saved): void {
    if (this.dirty || this.saving || server.version <= this.base) return;
    this.base = server.version;
    this.was = server.text;
    this.show({ text: server.text });
  }

  /** A field shows it: bring back what was typed on this device and never reached the server. */
  async begin(server: Saved, writable: boolean): Promise<void> {
    this.open = true;
    const draft = await findDraft(this.person, this.name);
    if (!draft || this.dirty) return;
    if (draft.text === server.text) {
      await dropDraft(this.person, this.name);
      return;
    }
    if (!writable) {
      this.show({ state: { at: "left", text: draft.text } });
      return;
    }
    this.dirty = true;
    this.show({ text: draft.text });
    if (draft.base === server.version) {
      await this.push();
    } else {
      // Somebody saved since: the server puts both together, or says that it cannot.
      this.base = draft.base;
      this.was = draft.was ?? "";
      await this.push();
    }
  }

  /** The field can no longer be written in: what could not be saved is left beside it, and holds up nothing more. */
  lock(): void {
    if (!this.dirty || this.saving) return;
    clearTimeout(this.timer);
    this.dirty = false;
    this.show({ text: this.was, state: { at: "left", text: this.kept.text } });
  }

  /** It can be written in again: what was left comes back. */
  unlock(server: Saved): void {
    if (this.kept.state.at === "left") void this.begin(server, true);
  }

  /** Let go of what was left behind. */
  readonly letGo = (): void => {
    void dropDraft(this.person, this.name);
    this.show({ state: { at: "rest" } });
  };

  /** The version on the server that this text goes on from. */
  get version(): number {
    return this.base;
  }

  /** It was saved in another way: nothing of it is left to save. */
  readonly forget = (): void => {
    clearTimeout(this.timer);
    this.dirty = false;
    void dropDraft(this.person, this.name);
  };

  /** The field goes away: a last save. */
  end(): void {
    this.open = false;
    void this.push();
  }
}
