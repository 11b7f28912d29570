/** Where a template can come from: the gallery, or another class. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Search } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import type { Schema } from "../api/client";
import { galleryQuery, startQuery } from "../api/queries";
import { may, useSession } from "../api/session";
import { Modal } from "../ui/Modal";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { useUndo } from "../live/useUndo";
import { Waiting } from "../ui/Waiting";
import { OUTLINE } from "./outlineTexts";
import { TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";
import { together } from "../ui/words";

interface Props {
  groupId: number;
  onClose: () => void;
}

export function GalleryDialog({ groupId, onClose }: Props) {
  const [from, setFrom] = useState<"gallery" | "class">("gallery");
  const queries = useQueryClient();
  const say = useSay();
  const path = { params: { path: { group_id: groupId } } };
  const undo = useUndo(groupId);
  const done = async (words: string, sections: number[]) => {
    await queries.invalidateQueries({ queryKey: ["group", groupId] });
    const back = () => data(client.POST("/api/groups/{group_id}/template/brought/undo", { ...path, body: { sections } }));
    say(words, undo(back, TEXTS.undoneTheTemplateIsAs));
    onClose();
  };
  const adopt = useMutation({
    mutationFn: (body: Schema["AdoptIn"]) => data(client.POST("/api/groups/{group_id}/template/adopt", { ...path, body })),
    onSuccess: (made) => done(TEXTS.pocketsMoreInEveryPortfolio({ pockets: made.pockets }), made.sections),
  });
  const carry = useMutation({
    mutationFn: (body: Schema["CarryIn"]) => data(client.POST("/api/groups/{group_id}/template/carry-over", { ...path, body })),
    onSuccess: (made) => done(TEXTS.carriedOver({ what: together(cameOver(made)) }), made.sections),
  });
  const error = adopt.error ?? carry.error;
  return (
    <Modal title={TEXTS.bringInATemplate} onClose={onClose}>
          <div role="group" aria-label={TEXTS.whereFrom} className="flex gap-2">
            {(["gallery", "class"] as const).map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={one === from}
                onClick={() => setFrom(one)}
                className={`min-h-9 rounded-md border px-3 font-semibold ${one === from ? "border-ink bg-ink text-paper" : "border-edge hover:border-control"}`}
              >
                {one === "gallery" ? TEXTS.fromTheGallery : TEXTS.fromAnotherClass}
              </button>
            ))}
          </div>
          {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
          {from === "gallery" ? (
            <Gallery busy={adopt.isPending} onAdopt={(body) => adopt.mutate(body)} />
          ) : (
            <OtherClass groupId={groupId} busy={carry.isPending} onCarry={(body) => carry.mutate(body)} />
          )}
    </Modal>
  );
}

function Gallery({ busy, onAdopt }: { busy: boolean; onAdopt: (body: Schema["AdoptIn"]) => void }) {
  const [text, setText] = useState("");
  const found = useQuery(galleryQuery(useSettled(text)));
  return (
    <>
      <label className="flex min-h-9 items-center gap-2 rounded-md border border-control px-3">
        <Search aria-hidden size={16} className="text-quiet" />
        <span className="sr-only">{TEXTS.findATemplate}</span>
        <input data-autofocus value={text} onChange={(event) => setText(event.target.value)} placeholder={TEXTS.findATemplate} className="flex-1 outline-none" />
      </label>
      {found.isPending && <Waiting />}
      <ul className="min-h-0 flex-1 divide-y divide-line overflow-y-auto">
        {(found.data ?? []).map((one) => (
          <Offered key={one.id} one={one} busy={busy} onAdopt={onAdopt} />
        ))}
        {found.data?.length === 0 && <li className="py-6 text-center">{TEXTS.noTemplateHasTheseWords}</li>}
      </ul>
    </>
  );
}

/** A template of the gallery, whole or section by section. */
function Offered({ one, busy, onAdopt }: { one: Schema["ShownTemplate"]; busy: boolean; onAdopt: (body: Schema["AdoptIn"]) => void }) {
  const [without, setWithout] = useState<string[]>([]);
  const taken = one.sections.filter((section) => !without.includes(section.key));
  return (
    <li className="flex items-start gap-4 py-3">
      <div className="min-w-0 flex-1">
        <h3 className="text-base">{one.title}</h3>
        <p>{one.description}</p>
        <p className="mt-1 text-quiet">{TEXTS.otherShipsWithCoatPeg({ by: one.by, byIs: Boolean(one.by), version: one.version })}</p>
        <details className="mt-1">
          <summary className="font-semibold">{COUNTED.pockets({ count: taken.reduce((sum, section) => sum + section.pockets.length, 0) })}</summary>
          <Wanted sections={one.sections.map((section) => ({ ...section, pockets: section.pockets.join(", ") }))} without={without} onWithout={setWithout} />
        </details>
      </div>
      <Button disabled={busy || taken.length === 0} onClick={() => onAdopt({ template: one.id, sections: without.length > 0 ? taken.map(({ key }) => ({ key, title: "" })) : null })}>
        {TEXTS.adopt}
        <span className="sr-only"> {one.title}</span>
      </Button>
    </li>
  );
}

interface WantedProps {
  sections: { key: string; title: string; pockets: string }[];
  without: string[];
  onWithout: (without: string[]) => void;
}

/** Which sections come: what is not wanted is left out before, not trimmed after. */
function Wanted({ sections, without, onWithout }: WantedProps) {
  return (
    <ul aria-label={OUTLINE.whichSections} className="mt-1 flex flex-col gap-1">
      {sections.map(({ key, title, pockets }) => (
        <li key={key}>
          <label className="flex min-h-7 flex-wrap items-center gap-x-2">
            <input type="checkbox" className="size-4 shrink-0 accent-ink" checked={!without.includes(key)} onChange={() => onWithout(without.includes(key) ? without.filter((one) => one !== key) : [...without, key])} />
            {title} <span className="text-quiet">{pockets}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}

/** What came over, each in words. */
function cameOver(made: Schema["BroughtShape"]): string[] {
  const handins = made.handins > 0 ? [TEXTS.handinsOver({ count: made.handins })] : [];
  const items = made.items > 0 ? [TEXTS.itemsOver({ count: made.items })] : [];
  return [COUNTED.pockets({ count: made.pockets }), ...handins, ...items];
}

function OtherClass({ groupId, busy, onCarry }: { groupId: number; busy: boolean; onCarry: (body: Schema["CarryIn"]) => void }) {
  const classes = useSession().groups.filter((one) => one.id !== groupId && may(one, "see_template"));
  const [source, setSource] = useState(classes[0]?.id ?? 0);
  const [handins, setHandins] = useState(true);
  const [cupboard, setCupboard] = useState(true);
  const [without, setWithout] = useState<string[]>([]);
  const sections = useQuery(startQuery).data?.classes.find((one) => one.id === source)?.sections ?? [];
  const taken = sections.filter((one) => !without.includes(one.key));
  if (classes.length === 0) return <p className="py-4">{TEXTS.youAreInNoOther}</p>;
  return (
    <div className="flex flex-col gap-3">
      <label className="font-bold">
        {TEXTS.class}
        <select value={source} onChange={(event) => {
            setSource(Number(event.target.value));
            setWithout([]);
          }} className="mt-1 flex min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal">
          {classes.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" checked={handins} onChange={() => setHandins(!handins)} />
        {TEXTS.itsHandInsTooMoved}
      </label>
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" checked={cupboard} onChange={() => setCupboard(!cupboard)} />
        {TEXTS.itsCupboardToo}
      </label>
      <Wanted sections={sections.map((one) => ({ ...one, pockets: COUNTED.pockets({ count: one.pockets }) }))} without={without} onWithout={setWithout} />
      <Button look="main" className="min-h-9 self-start" disabled={busy || (sections.length > 0 && taken.length === 0)} onClick={() => onCarry({ source, handins, cupboard, sections: without.length > 0 ? taken.map(({ key }) => ({ key, title: "" })) : null })}>
        {TEXTS.carryOver}
      </Button>
    </div>
  );
}
