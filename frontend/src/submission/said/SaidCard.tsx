/** One thing that is said on the work, with its thread and what can be done about it. */
import { useMutation } from "@tanstack/react-query";
import { Check, Pencil, Trash2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { client, data } from "../../api/client";
import { Problem } from "../../api/problem";
import { Button } from "../../ui/Button";
import { moment } from "../../ui/dates";
import { Notice } from "../../ui/Notice";
import { Player } from "../../ui/reading/Player";
import { useSay } from "../../ui/Toasts";
import { clockOf } from "./clock";
import { begin, INKS, useSaying } from "./said";
import type { Annotation, Colour, Said } from "./said";
import { SAID } from "./saidTexts";
import { Thread } from "./Thread";

interface Props {
  said: Said;
  one: Annotation;
  number: number | undefined;
}

// eslint-disable-next-line complexity -- one branch for each thing that there may be to tell
export function SaidCard({ said, one, number }: Props) {
  const active = said.active === one.id;
  const place = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (active) place.current?.scrollIntoView({ block: "nearest" });
  }, [active]);
  return (
    <li
      ref={place}
      aria-current={active ? "true" : undefined}
      className={`flex flex-col gap-1.5 rounded-md border p-3 ${active ? "border-copper bg-today" : "border-edge bg-paper"} ${one.settled_at ? "opacity-80" : ""}`}
    >
      <div className="flex items-start gap-2">
        {number !== undefined && (
          <button type="button" aria-hidden tabIndex={-1} onClick={() => said.choose(active ? null : one.id)} className="figures flex size-6 shrink-0 items-center justify-center rounded-full bg-ink text-xs font-bold text-paper">
            {number}
          </button>
        )}
        <div className="min-w-0 flex-1">
          <Words one={one} />
          <p className="mt-0.5 text-sm text-quiet">{SAID.whoAt({ who: one.who, at: moment(one.at) })}</p>
          {!one.shown && !one.mine && <p className="text-sm text-quiet">{SAID.notShownYet}</p>}
        </div>
        {said.writes && one.mine && <Own said={said} one={one} />}
      </div>
      {one.settled_at && <p className="text-sm text-quiet">{SAID.settledBy({ who: one.settled_by, at: moment(one.settled_at) })}</p>}
      {one.done_at && !said.mends && <p className="flex items-center gap-1 text-sm text-accepted"><Check aria-hidden size={14} />{SAID.isMended({ at: moment(one.done_at) })}</p>}
      {one.choice && <p className="text-sm text-quiet">{(one.choice === "taken" ? SAID.taken : SAID.left)({ at: moment(one.chosen_at ?? one.at) })}</p>}
      {said.mends && one.shown && <Mending said={said} one={one} />}
      {one.shown && <Thread said={said} one={one} />}
    </li>
  );
}

/** Where it is, and what it says. */
function Words({ one }: { one: Annotation }) {
  return (
    <>
      <Where one={one} />
      {one.criterion_title && <p className="text-sm font-bold">{SAID.whyOf({ criterion: one.criterion_title })}</p>}
      {one.kind === "suggestion" && (
        <p className="break-words">
          {SAID.instead({ was: <s key="was" className="text-quiet">{one.target.words?.exact}</s>, wording: <strong key="wording">{one.wording}</strong> })}
        </p>
      )}
      {one.kind === "ink" && <Drawn one={one} />}
      {one.voice && <Player video={false} src={`/api/annotations/${one.id}/voice`} label={SAID.voiceBy({ who: one.who })} className="my-1" />}
      {one.text && <p className="break-words whitespace-pre-wrap">{one.text}</p>}
    </>
  );
}

function Where({ one }: { one: Annotation }) {
  const { words, page, row, at, spot } = one.target;
  const said = [page ? SAID.page({ page }) : "", spot && !page ? SAID.inPicture : "", at !== null && at !== undefined ? SAID.at({ at: clockOf(at) }) : "", row ? SAID.inRow : ""].filter(Boolean).join(" · ");
  if (words && one.kind !== "suggestion") return <p className="line-clamp-2 border-l-3 border-brass pl-2 text-sm break-words text-ink-soft">{words.exact}</p>;
  return said ? <p className="text-sm text-quiet">{said}</p> : null;
}

function Drawn({ one }: { one: Annotation }) {
  const colours = [...new Set(one.strokes.map((each) => each.colour))] as Colour[];
  return (
    <p className="flex items-center gap-1.5">
      {colours.map((colour) => (
        <span key={colour} aria-hidden className={`size-3 rounded-full border border-paper ${INKS[colour].ground}`} />
      ))}
      {SAID.drawn({ strokes: one.strokes.length })}
    </p>
  );
}

/** Changing one's own while it is a draft, and taking it back. */
function Own({ said, one }: { said: Said; one: Annotation }) {
  const { remove } = useSaying(said.groupId, said.submission);
  const icon = "-m-1 flex size-8 shrink-0 items-center justify-center rounded-md text-quiet hover:bg-ground hover:text-ink";
  const text = (one.text || (one.wording ?? "") || (one.target.words?.exact ?? "")).slice(0, 40);
  const { kind } = one;
  return (
    <span className="flex shrink-0 gap-1">
      {!one.shown && (kind === "comment" || kind === "suggestion") && (
        <button
          type="button"
          aria-label={SAID.changeNamed({ text })}
          title={SAID.change}
          className={icon}
          onClick={() => said.compose(begin(one.target, { key: one.key, kind, version: one.version, text: one.text, wording: one.wording ?? "", voice: one.voice, criterion: one.criterion }))}
        >
          <Pencil aria-hidden size={15} />
        </button>
      )}
      <button type="button" aria-label={SAID.takeAwayNamed({ text })} title={SAID.takeAway} className={icon} onClick={() => remove(one.id)}>
        <Trash2 aria-hidden size={15} />
      </button>
    </span>
  );
}

/** What its student does with it: ticks it off, takes a wording or leaves it. */
function Mending({ said, one }: { said: Said; one: Annotation }) {
  const { put, fresh } = useSaying(said.groupId, said.submission);
  const say = useSay();
  const path = { params: { path: { annotation_id: one.id } } };
  /** As it was just ticked, until the server has it too. */
  const [ticked, setTicked] = useState<boolean | null>(null);
  const done = useMutation({
    mutationFn: (yes: boolean) => data(client.POST("/api/annotations/{annotation_id}/done", { ...path, body: { done: yes } })),
    onSuccess: async (now) => {
      put(now);
      await fresh();
    },
    onSettled: () => setTicked(null),
  });
  const choose = useMutation({
    mutationFn: (choice: "taken" | "left") => data(client.POST("/api/annotations/{annotation_id}/choice", { ...path, body: { choice } })),
    onSuccess: async (now) => {
      put(now);
      if (now.choice === "taken") say(SAID.takenNow);
      await fresh();
    },
  });
  const problem = choose.error ?? done.error;
  return (
    <div className="flex flex-col gap-1">
      {one.kind === "suggestion" && one.choice !== "taken" && (
        <div className="flex flex-wrap gap-2">
          <Button className="min-h-11" disabled={choose.isPending} onClick={() => choose.mutate("taken")}>
            {SAID.take}
          </Button>
          {one.choice === "" && (
            <Button look="quiet" className="min-h-11" disabled={choose.isPending} onClick={() => choose.mutate("left")}>
              {SAID.leave}
            </Button>
          )}
        </div>
      )}
      {one.kind === "comment" && (
        <label className="flex min-h-11 items-center gap-2 self-start">
          <input type="checkbox" checked={ticked ?? one.done_at !== null}
            onChange={(event) => {
              setTicked(event.target.checked);
              done.mutate(event.target.checked);
            }}
            className="size-5 accent-accepted" />
          {SAID.mended}
        </label>
      )}
      {problem instanceof Problem && <Notice title={problem.title} fix={problem.fix} />}
    </div>
  );
}
