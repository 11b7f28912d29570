/**
 * The draft of a template: changes that one person collects, seen by nobody else until they are saved for everyone at
 * once. They are kept in the browser at once and with the account a moment later. The server draws the template as it
 * would stand; undo of what was saved is a draft again.
 */
import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { templateQuery } from "../api/queries";
import { useUndo } from "../live/useUndo";
import { usePersonId } from "../api/session";
import { useSay } from "../ui/Toasts";
import { newKey } from "../ui/newKey";
import { thisDevice } from "../writing/device";
import { dropDraft, findDraft, keepDraft } from "../writing/drafts";
import { DRAFT } from "./draftTexts";
import { TEXTS } from "./texts";

export type Edit = Schema["SaveIn"]["edits"][number];
export type ChangePocket = Extract<Edit, { do: "change_pocket" }>;
export type SetUnits = Extract<Edit, { do: "set_units" }>;
export type Seen = Schema["DraftShape"];

/** Milliseconds that typing rests before it is asked what it means. */
const REST = 300;
/** Ids of what a draft adds lie between this, below zero, and -1. */
const LOWEST = 900_000;
/** Where the key of a look says how often the draft was saved. */
const SAVES = 3;

export interface TemplateDraft {
  edits: Edit[];
  /** Another one whenever the changes came from elsewhere than the open form, which then begins anew. */
  turn: number;
  /** The template as it would stand, and what that means; undefined until it was asked once. */
  seen: Seen | undefined;
  /** Whether ``seen`` is of just these changes. */
  current: boolean;
  /** Why they could not even be looked at. */
  failed: unknown;
  /** Add changes, all at once, when the server has agreed to them; rejects with its ``Problem``, and leaves the draft as it was. */
  push: (...made: Edit[]) => Promise<void>;
  /** Keep what is typed into a pocket's settings, in place of what was typed before; null: as it is. */
  putPocket: (pocket: number, settings: Schema["PocketIn"] | null) => void;
  /** The same of a section's units. */
  putUnits: (section: number, units: Schema["UnitsIn"] | null) => void;
  /** Leave out a change; of something that it adds, also what is said of that. */
  leaveOut: (edit: Edit) => void;
  /** Leave out that a file is given; what is typed meanwhile stays as it is. */
  leaveFile: (file: number) => void;
  /** Let a change that was overtaken stand over the version that is there now. */
  standOver: (place: number, version: number) => void;
  throwAway: () => void;
  save: { run: () => void; busy: boolean; error: unknown };
}

/** Changes that are asked about; another number each time, so that every one of them is kept. */
interface Asked {
  edits: Edit[];
  at: number;
}

/** What the account keeps of a draft, and who else has one. */
export const keptQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "template-draft-kept"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/template/draft", { params: { path: { group_id } } })),
  });

/** What the address names is not what it was: the ids that were given, by those of the draft. */
type Made = Schema["MadeIds"];

/** The draft of a class's template; ``pocket`` is the one that is open, ``onSaved`` is told what the changes made. */
export function useTemplateDraft(groupId: number, pocket: number | null, may: boolean, onSaved: (made: Made) => void): TemplateDraft {
  const queries = useQueryClient();
  const say = useSay();
  const back = useUndo(groupId);
  const [edits, show] = useState<Edit[]>([]);
  const [asked, ask] = useState<Asked>({ edits: [], at: 0 });
  // Nothing is kept before an earlier draft was looked for; and nothing where nothing ever was drafted.
  const [looked, setLooked] = useState(false);
  const [drafted, setDrafted] = useState(false);
  const [turn, turns] = useState(0);
  const [saves, saved] = useState(0);
  // What the next change builds upon, also before it is drawn.
  const now = useRef<Edit[]>([]);
  /** Changes that the server was asked about and has not agreed to yet. */
  const asking = useRef(new Set<Edit>());
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);

  const count = useRef(0);
  const set = useCallback((next: Edit[], rest = 0, at = 0) => {
    now.current = next;
    show(next);
    if (next.length > 0) setDrafted(true);
    clearTimeout(timer.current);
    const askNow = () => ask({ edits: now.current, at: at || ++count.current });
    if (rest > 0) timer.current = setTimeout(askNow, rest);
    else askNow();
  }, []);
  const turnTo = useCallback(
    (next: Edit[]) => {
      set(next);
      turns((before) => before + 1);
    },
    [set],
  );
  const bringBack = useCallback(
    (kept: Edit[]) => {
      // What was typed while the draft was being looked for stands.
      const typed = now.current;
      turnTo([...kept.filter((one) => !typed.some((other) => isSameField(one, other))), ...typed]);
      say(DRAFT.back({ count: counted(kept).length }), () => turnTo([]));
    },
    [turnTo, say],
  );
  const person = usePersonId();
  const name = `template/${groupId}`;
  useEffect(() => {
    if (!may) return;
    let over = false;
    void Promise.all([findDraft(person, name), queries.query(keptQuery(groupId)).catch(() => null)]).then(([here, kept]) => {
      if (over) return;
      // What this browser holds is newer than what the account has of it; what came from another one later is newer than both.
      const own = !kept || kept.device === "" || kept.device === thisDevice();
      const found = here && own ? (JSON.parse(here.text) as Edit[]) : (kept?.edits ?? []);
      if (found.length > 0) bringBack(found);
      setLooked(true);
    });
    return () => {
      over = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- looked for once, as the template is opened
  }, [person, name, may]);
  useEffect(() => {
    if (!looked) return;
    if (edits.length > 0) void keepDraft(person, name, { text: JSON.stringify(edits), base: 0 });
    else void dropDraft(person, name);
  }, [person, name, edits, looked]);

  const group = { params: { path: { group_id: groupId } } };
  const device = looked && drafted ? thisDevice() : "";
  const looking = ({ edits: of, at }: Asked) => ({
    queryKey: ["group", groupId, "template-draft", saves, at, of, pocket],
    queryFn: () => data(client.POST("/api/groups/{group_id}/template/draft/look", { ...group, body: { edits: of, pocket, device } })),
    gcTime: 30_000,
  });
  // Until the next answer the one before stands; but not over a save, which gave everything that was added another id.
  const look = useQuery({ ...looking(asked), enabled: may && looked, placeholderData: (old: Seen | undefined, of) => (of?.queryKey[SAVES] === saves ? old : undefined) });

  const tried = useRef<{ of: Edit[]; key: string }>({ of: [], key: "" });
  const save = useMutation({
    // Where no answer came it is perhaps done: the same sent again is done once.
    mutationFn: (of: Edit[]) => {
      if (tried.current.of !== of) tried.current = { of, key: newKey() };
      return data(client.POST("/api/groups/{group_id}/template/draft", { ...group, body: { edits: of, undoes: false, key: tried.current.key } }));
    },
    onSuccess: async (done, sent) => {
      // The template as it stands now comes first: nothing is drawn twice, or for a moment not at all.
      await queries.query({ ...templateQuery(groupId), staleTime: 0 }).catch(() => undefined);
      saved((before) => before + 1);
      set([]);
      onSaved(done.made);
      const undo = () => data(client.POST("/api/groups/{group_id}/template/draft", { ...group, body: { edits: done.undo, undoes: true, key: "" } }));
      say(savedWords(sent, done.students), back(undo, TEXTS.undone));
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    },
  });

  const put = <E extends Edit>(is: (edit: Edit) => edit is E, next: (before: E | undefined) => E | null) => {
    const at = now.current.findIndex(is);
    const before = now.current.find(is);
    const edit = next(before);
    if (JSON.stringify(edit ?? undefined) === JSON.stringify(before)) return;
    if (edit && before) set(now.current.with(at, edit), REST);
    else if (edit) set([...now.current, edit], REST);
    else set(now.current.toSpliced(at, 1), REST);
  };

  return {
    edits,
    turn,
    seen: look.data,
    current: !look.isPlaceholderData && look.data !== undefined && JSON.stringify(asked.edits) === JSON.stringify(edits),
    failed: look.error,
    push: async (...made) => {
      const before = now.current;
      const next = made.reduce(coalesced, before);
      const at = ++count.current;
      for (const edit of made) asking.current.add(edit);
      // False where they were thrown away meanwhile, with everything else.
      const asked = () => made.map((edit) => asking.current.delete(edit)).every(Boolean);
      const found = await queries.query(looking({ edits: next, at })).catch((why: unknown) => {
        asked();
        throw why;
      });
      if (!asked()) return;
      const wrong = found.hindrances.find((one) => made.some((edit) => next.indexOf(edit) === one.edit));
      if (wrong) throw new Problem({ title: wrong.what, fix: wrong.fix, where: wrong.where }, 422);
      // What was typed meanwhile stands.
      if (now.current === before) set(next, 0, at);
      else set(made.reduce(coalesced, now.current));
    },
    putPocket: (id, settings) =>
      put(
        (edit): edit is ChangePocket => edit.do === "change_pocket" && edit.pocket === id,
        (before) => settings && { do: "change_pocket", pocket: id, settings: { ...settings, version: before?.settings.version ?? settings.version } },
      ),
    putUnits: (id, units) =>
      put(
        (edit): edit is SetUnits => edit.do === "set_units" && edit.section === id,
        (before) => units && { do: "set_units", section: id, units: { ...units, version: before?.units.version ?? units.version } },
      ),
    leaveOut: (edit) => turnTo(without(now.current, edit)),
    leaveFile: (file) => set(now.current.filter((one) => one.do !== "give_file" || one.file !== file)),
    standOver: (place, version) => turnTo(now.current.map((edit, at) => (at === place ? over(edit, version) : edit))),
    throwAway: () => {
      const thrown = [...asking.current].reduce(coalesced, now.current);
      asking.current.clear();
      turnTo([]);
      save.reset();
      say(DRAFT.thrownAway({ count: counted(thrown).length }), () => turnTo([...thrown, ...now.current]));
    },
    save: { run: () => save.mutate(now.current), busy: save.isPending, error: save.error },
  };
}

/** Whether both are what is typed into one and the same form. */
function isSameField(one: Edit, other: Edit): boolean {
  if (one.do === "change_pocket") return other.do === "change_pocket" && one.pocket === other.pocket;
  return one.do === "set_units" && other.do === "set_units" && one.section === other.section;
}

/** An id for what a draft adds. */
export function newId(): number {
  return -1 - Math.floor(Math.random() * LOWEST);
}

/** With one more change: of the same thing done twice the last stands, and what is taken away again was never there. */
// eslint-disable-next-line complexity -- one branch for each kind of change that takes another's place
export function coalesced(edits: Edit[], edit: Edit): Edit[] {
  const last = edits.at(-1);
  if (last?.do === "move_pocket" && edit.do === "move_pocket" && last.pocket === edit.pocket) return [...edits.slice(0, -1), edit];
  if (last?.do === "move_section" && edit.do === "move_section" && last.section === edit.section) return [...edits.slice(0, -1), edit];
  if (edit.do === "rename_section") return [...edits.filter((one) => one.do !== "rename_section" || one.section !== edit.section), edit];
  if (edit.do === "remove_pocket" && edit.pocket < 0) return edits.filter((one) => !isAbout(one, "pocket", edit.pocket));
  if (edit.do === "remove_section" && edit.section < 0) return edits.filter((one) => !isAbout(one, "section", edit.section));
  if (edit.do === "retire_pocket" && edits.some((one) => one.do === "retire_pocket" && one.pocket === edit.pocket))
    return edits.filter((one) => one.do !== "retire_pocket" || one.pocket !== edit.pocket);
  return [...edits, edit];
}

function without(edits: Edit[], edit: Edit): Edit[] {
  if (edit.do === "add_pocket") return edits.filter((one) => !isAbout(one, "pocket", edit.id));
  if (edit.do !== "add_section") return edits.filter((one) => one !== edit);
  // With a section goes what it was to hold.
  const inside = edits.filter((one) => one.do === "add_pocket" && one.section === edit.id);
  return inside.reduce(without, edits).filter((one) => !isAbout(one, "section", edit.id));
}

/** Whether a change adds this, or is of this alone. */
function isAbout(edit: Edit, what: "pocket" | "section", id: number): boolean {
  if (edit.do === "add_pocket") return what === "pocket" && edit.id === id;
  if (edit.do === "add_section") return what === "section" && edit.id === id;
  if (what === "pocket") return "pocket" in edit && edit.pocket === id;
  return "section" in edit && !("pocket" in edit) && edit.section === id;
}

function over(edit: Edit, version: number): Edit {
  if (edit.do === "change_pocket") return { ...edit, settings: { ...edit.settings, version } };
  if (edit.do === "set_units") return { ...edit, units: { ...edit.units, version } };
  return edit;
}

/** The changes as a person counts them: what is said of something that the draft adds is part of adding it. */
export function counted(edits: Edit[]): Edit[] {
  return edits.filter((one) => one.do === "add_pocket" || one.do === "add_section" || !ofSomethingNew(one));
}

function ofSomethingNew(edit: Edit): boolean {
  if ("pocket" in edit) return edit.pocket < 0;
  return "section" in edit && edit.section < 0;
}

/** What is said of a draft that was saved: of one change what it was, of several how many. */
function savedWords(sent: Edit[], students: number): string {
  const [only, ...more] = counted(sent);
  if (only === undefined || more.length > 0) return DRAFT.saved({ count: more.length + 1, students });
  const settings = sent.find((one): one is ChangePocket => one.do === "change_pocket")?.settings;
  if (settings && (only.do === "change_pocket" || only.do === "add_pocket")) return TEXTS.titleIsSavedInPortfolios({ title: settings.title, students });
  if (only.do === "set_units") return TEXTS.unitsLaidOutInEvery({ count: only.units.units.length });
  return DRAFT.saved({ count: 1, students });
}
