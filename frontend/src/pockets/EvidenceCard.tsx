/** One artefact in a pocket, with its reflection and what staff say about it. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, PencilLine, Replace, Trash2 } from "lucide-react";
import { useMemo, useRef, useState } from "react";
import type { ReactNode } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { usePersonId, useSession } from "../api/session";
import { OpenArtefact, Thumbnail } from "../viewer/Artefact";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { PutInBy } from "../ui/people/PutInBy";
import { Reflection } from "../ui/reading/Reflection";
import { useSay } from "../ui/Toasts";
import { Comments } from "./Comments";
import { HistoryButton } from "../writing/HistoryButton";
import { saverOf } from "../writing/saving";
import { Spoken } from "./Spoken";
import { TEXTS } from "./texts";
import { TextArtefact } from "./TextArtefact";
import type { Extra } from "../taking-in/uploads";
import { WritingField } from "../writing/WritingField";

interface Props {
  evidence: Schema["EvidenceShape"];
  pocket: Schema["OpenedPocket"];
  groupId: number;
  portfolio: number;
  mine: boolean;
  /** The evidence before and after it, to change places with. */
  before: number | null;
  after: number | null;
  /** Since this moment things are new to whoever looks. */
  since: string | null;
  onFiles: (files: { file: Blob; name: string; extra?: Extra }[]) => void;
}

const ANY_LENGTH = { measure: "", least: 1, most: null } as const;

// eslint-disable-next-line complexity -- one branch for each thing a piece of evidence may have beside it
export function EvidenceCard({ evidence, pocket, groupId, portfolio, mine, before, after, since, onFiles }: Props) {
  const queries = useQueryClient();
  const person = usePersonId();
  const { text_limit: limit } = useSession();
  const { artefact, id } = evidence;
  const fresh = useMemo(() => () => queries.invalidateQueries({ queryKey: ["group", groupId, "portfolio"] }), [groupId, queries]);
  const save = useMemo(() => {
    const plain = saverOf(`reflection/${id}`);
    return async (text: string, version: number, base: string) => {
      if (!plain) throw new Problem({ title: TEXTS.thereIsNowhereToSave }, 500);
      const saved = await plain(text, version, base);
      await fresh();
      return saved;
    };
  }, [fresh, id]);
  if (!artefact) return null;
  const isNew = since !== null && evidence.changed_at > since;
  // Beside the text of a page an artefact has no prompt, length or recording of its own.
  const beside = pocket.kind === "page";
  const prompt = beside ? TEXTS.whatDoesThisShow : pocket.prompt || TEXTS.whatDoesThisShow;
  return (
    <li className={`flex flex-col overflow-hidden rounded-lg border bg-paper ${isNew ? "border-copper" : "border-edge"}`}>
      {artefact.kind === "text" ? <TextArtefact artefact={artefact} groupId={groupId} portfolio={portfolio} writable={pocket.writable} mine={mine} /> : <Thumbnail artefact={artefact} tall />}
      <div className="flex flex-1 flex-col gap-3 p-4">
        <div className="flex items-start justify-between gap-2">
          <div className="min-w-0">
            <Title artefact={artefact} may={mine} groupId={groupId} />
            <PutInBy by={evidence.by} />
            {evidence.copy_of && <p className="text-sm text-quiet">{TEXTS.copyOf({ title: evidence.copy_of })}</p>}
            {isNew && <p className="text-sm font-semibold text-copper">{TEXTS.newSinceYouLooked}</p>}
            <OpenArtefact artefact={artefact} />
          </div>
          {pocket.writable && (
            <div className="-mt-2 -mr-2 flex shrink-0">
              {(before !== null || after !== null) && <Places id={id} title={artefact.title} before={before} after={after} fresh={fresh} />}
              <TakeOut evidence={evidence} groupId={groupId} title={artefact.title} />
            </div>
          )}
        </div>
        {evidence.unchanged && !["text", "link"].includes(artefact.kind) && <p className="text-copper">{mine && pocket.writable ? TEXTS.unchanged : mine ? TEXTS.unchangedLocked : TEXTS.unchangedTheirs}</p>}
        {pocket.writable && !["link", "text"].includes(artefact.kind) && <Newer evidence={id} title={artefact.title} wanted={evidence.unchanged} onFiles={onFiles} />}
        {(mine || evidence.spoken) && <Spoken evidence={evidence.id} spoken={evidence.spoken} allowed={pocket.spoken && !beside} writable={pocket.writable} groupId={groupId} prompt={prompt} onFiles={onFiles} />}
        {mine ? (
          <WritingField
            name={`reflection/${id}`}
            person={person}
            label={evidence.spoken && pocket.spoken ? TEXTS.transcript : prompt}
            server={evidence}
            writable={pocket.writable}
            length={beside ? ANY_LENGTH : pocket}
            limit={limit}
            rows={3}
            save={save}
            tools={evidence.version > 0 && <HistoryButton kind="evidence" id={id} groupId={groupId} may={pocket.writable} />}
          />
        ) : (
          <div>
            <Reflection text={evidence.text} />
            {evidence.version > 0 && !evidence.by && <HistoryButton kind="evidence" id={id} groupId={groupId} may={false} />}
          </div>
        )}
        <Comments comments={pocket.comments.filter((one) => one.evidence === id)} groupId={groupId} portfolio={portfolio} about={{ evidence: id }} />
      </div>
    </li>
  );
}

/** A newer form of the file, in its place. */
function Newer({ evidence, title, wanted, onFiles }: { evidence: number; title: string; wanted: boolean; onFiles: Props["onFiles"] }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <div className={wanted ? "" : "-ml-3"}>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={`${TEXTS.newer}: ${title}`}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFiles([{ file, name: file.name, extra: { replaces: evidence } }]);
          event.target.value = "";
        }}
      />
      <Button big look={wanted ? "plain" : "quiet"} icon={<Replace aria-hidden size={16} />} onClick={() => input.current?.click()}>
        {wanted ? TEXTS.mineNow : TEXTS.newer}
      </Button>
    </div>
  );
}

/** The title of an artefact; its student can give it another. */
function Title({ artefact, may, groupId }: { artefact: Schema["ArtefactShape"]; may: boolean; groupId: number }) {
  const queries = useQueryClient();
  const { title_limit: most } = useSession();
  const [editing, setEditing] = useState(false);
  const rename = useMutation({
    mutationFn: (title: string) => data(client.PUT("/api/artefacts/{artefact_id}/title", { params: { path: { artefact_id: artefact.id } }, body: { title } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["group", groupId] }),
  });
  if (editing) {
    return (
      <input
        aria-label={`${TEXTS.rename}: ${artefact.title}`}
        // eslint-disable-next-line jsx-a11y/no-autofocus -- it took the place of the button that was pressed
        autoFocus
        defaultValue={artefact.title}
        maxLength={most}
        onKeyDown={(event) => {
          if (event.key === "Enter") event.currentTarget.blur();
          if (event.key === "Escape") setEditing(false);
        }}
        onBlur={(event) => {
          const title = event.currentTarget.value.trim();
          if (title && title !== artefact.title) rename.mutate(title);
          setEditing(false);
        }}
        className="w-full rounded-md border border-control px-2 py-1 text-base font-bold"
      />
    );
  }
  return (
    <h3 className="text-base break-words">
      {artefact.title}
      {may && (
        <button type="button" aria-label={`${TEXTS.rename}: ${artefact.title}`} title={TEXTS.rename} onClick={() => setEditing(true)} className="-my-3 inline-flex size-11 items-center justify-center rounded-md align-middle text-quiet hover:bg-ground">
          <PencilLine aria-hidden size={15} />
        </button>
      )}
    </h3>
  );
}

function Places({ id, title, before, after, fresh }: { id: number; title: string; before: number | null; after: number | null; fresh: () => Promise<void> }) {
  // To stand one further back is to let the next one stand before this one.
  const move = useMutation({
    mutationFn: ({ moved, place }: { moved: number; place: number | null }) => data(client.POST("/api/evidence/{evidence_id}/move", { params: { path: { evidence_id: moved } }, body: { before: place } })),
    onSuccess: fresh,
  });
  const step = (name: string, icon: ReactNode, act: (() => void) | null) => (
    <button type="button" aria-label={`${name}: ${title}`} title={name} disabled={!act || move.isPending} onClick={act ?? undefined} className="flex size-11 items-center justify-center rounded-md text-ink-soft hover:bg-ground disabled:opacity-30">
      {icon}
    </button>
  );
  return (
    <>
      {step(TEXTS.earlier, <ArrowUp aria-hidden size={18} />, before === null ? null : () => move.mutate({ moved: id, place: before }))}
      {step(TEXTS.later, <ArrowDown aria-hidden size={18} />, after === null ? null : () => move.mutate({ moved: after, place: id }))}
    </>
  );
}

function TakeOut({ evidence, groupId, title }: { evidence: Schema["EvidenceShape"]; groupId: number; title: string }) {
  const queries = useQueryClient();
  const say = useSay();
  const [problem, setProblem] = useState<Problem | null>(null);
  const path = { params: { path: { evidence_id: evidence.id } } };
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const bringBack = async () => {
    await data(client.POST("/api/evidence/{evidence_id}/restore", path));
    await fresh();
  };
  const takeOut = async () => {
    try {
      await data(client.DELETE("/api/evidence/{evidence_id}", path));
      await fresh();
      say(TEXTS.titleWasTakenOutWith({ title }), () => void bringBack());
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  return (
    <div>
      <button
        type="button"
        aria-label={`${TEXTS.remove}: ${title}`}
        title={TEXTS.remove}
        onClick={() => void takeOut()}
        className="flex size-11 items-center justify-center rounded-md text-ink-soft hover:bg-ground"
      >
        <Trash2 aria-hidden size={18} />
      </button>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
    </div>
  );
}
