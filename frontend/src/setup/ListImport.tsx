/** Bringing in a list: paste or choose it, see what each line would do, apply. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FileUp, X } from "lucide-react";
import { useRef, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { upload } from "../api/upload";
import { Button } from "../ui/Button";
import { Failed, Waiting } from "../ui/Waiting";
import { Notice } from "../ui/Notice";
import { Select } from "../ui/Select";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { ListApply } from "./ListApply";
import { ListLines } from "./ListLines";
import type { Preview, Table } from "./list";
import { dropQuery, dropsQuery } from "./queries";
import { useDraft } from "../writing/useDraft";
import { TEXTS as WRITING } from "../writing/texts";
import { TEXTS } from "./texts";

type Column = Table["columns"][number];

interface Work {
  text: string;
  table: Table | null;
  asNew: number[];
  leave: number[];
  /** The list's names are written family name first; in the lines that are turned it is the other way. */
  familyFirst: boolean;
  turned: number[];
}

const NOTHING: Work = { text: "", table: null, asNew: [], leave: [], familyFirst: false, turned: [] };

interface Props {
  groupId: number;
  roster: Schema["RosterShape"];
  /** A list that came through the roster folder and is looked at now. */
  drop: number | null;
  onClose: () => void;
}

// eslint-disable-next-line complexity -- one branch for each step of taking a list in
export function ListImport({ groupId, roster, drop, onClose }: Props) {
  const say = useSay();
  // What was pasted or read, with what was mended in it: it comes back after a reload or a click elsewhere.
  const [work, setWork] = useState<Work>(NOTHING);
  const { table } = work;
  const setTable = (read: Table | null) => setWork((old) => ({ ...old, table: read, asNew: [], leave: [], turned: [] }));
  const letGo = useDraft(`list/${groupId}`, work, 0, drop === null && (table !== null || work.text.trim() !== ""), (kept) => {
    setWork((now) => (now.table || now.text ? now : { ...NOTHING, ...kept }));
    say(WRITING.back, () => setWork(NOTHING));
  });
  // The file a list was read from: another class of it may be chosen.
  const [file, setFile] = useState<File | null>(null);
  const came = useQuery({ ...dropQuery(groupId, drop ?? 0), enabled: drop !== null && table === null });
  const shown = table ?? (drop === null ? null : (came.data ?? null));
  return (
    <section aria-labelledby="bring" className="flex min-h-0 flex-1 flex-col">
      <div className="flex items-center justify-between px-5 pt-4">
        <h1 id="bring" className="text-xl">
          {TEXTS.bringTitle}
        </h1>
        <button type="button" aria-label={TEXTS.backToTheClassList} onClick={onClose} className="-m-2 p-2">
          <X aria-hidden size={20} />
        </button>
      </div>
      {shown && file && <Classes groupId={groupId} table={shown} file={file} onTable={setTable} />}
      {shown ? (
        <Read key={shown.chosen} groupId={groupId} roster={roster} drop={drop} first={shown} work={work} onWork={setWork} onRestart={drop === null ? () => setTable(null) : onClose} onClose={onClose} onDone={letGo} />
      ) : drop !== null ? (
        came.isError ? <Failed error={came.error} again={() => void came.refetch()} /> : <Waiting />
      ) : (
        <>
          <Source
            groupId={groupId}
            text={work.text}
            onText={(text) => setWork((old) => ({ ...old, text }))}
            onTable={(read, from) => {
              setFile(from);
              setTable(read);
            }}
          />
          <ByItself groupId={groupId} />
        </>
      )}
    </section>
  );
}

/** Which class of a file of many. */
function Classes({ groupId, table, file, onTable }: { groupId: number; table: Table; file: File; onTable: (table: Table) => void }) {
  const read = useMutation({
    mutationFn: (chosen: string) => upload<Table>(`/api/groups/${groupId}/roster/files`, file, { chosen }),
    onSuccess: onTable,
  });
  const classes = table.classes ?? [];
  if (classes.length < 2) return null;
  return (
    <div className="px-5 pt-3">
      <Select
        label={TEXTS.fileClass}
        value={table.chosen}
        options={classes.map((one) => ({ value: one.id, shown: `${one.title} (${one.students})` }))}
        onChange={(chosen) => !read.isPending && read.mutate(chosen)}
      />
      {read.error instanceof Problem && <Notice title={read.error.title} fix={read.error.fix} />}
    </div>
  );
}

/** Whether lists from the roster folder are applied by themselves. */
function ByItself({ groupId }: { groupId: number }) {
  const queries = useQueryClient();
  const drops = useQuery(dropsQuery(groupId));
  const set = useMutation({
    mutationFn: (by_itself: boolean) => data(client.PUT("/api/groups/{group_id}/roster/by-itself", { params: { path: { group_id: groupId } }, body: { by_itself } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["group", groupId, "drops"] }),
  });
  if (!drops.data) return null;
  return (
    <div className="border-t border-line px-5 py-3">
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" checked={drops.data.by_itself} disabled={set.isPending} onChange={(event) => set.mutate(event.target.checked)} />
        {TEXTS.byItself}
      </label>
      <p className="ml-6 text-quiet">{TEXTS.byItselfHint}</p>
    </div>
  );
}

/** Where the list comes from. A pasted text is read as soon as it stands there. */
function Source({ groupId, text, onText: setText, onTable }: { groupId: number; text: string; onText: (text: string) => void; onTable: (table: Table, from: File | null) => void }) {
  const chooser = useRef<HTMLInputElement>(null);
  const path = { params: { path: { group_id: groupId } } };
  const read = useMutation({
    mutationFn: (pasted: string) => data(client.POST("/api/groups/{group_id}/roster/read", { ...path, body: { text: pasted } })),
    onSuccess: (read) => onTable(read, null),
  });
  const open = useMutation({
    mutationFn: (file: File) => upload<Table>(`/api/groups/${groupId}/roster/files`, file),
    onSuccess: (read, file) => onTable(read, file),
  });
  const error = open.error ?? read.error;
  const drop = (files: FileList | null) => {
    const file = files?.[0];
    if (file) open.mutate(file);
  };
  return (
    // A file may be dropped anywhere on it; the button below does the same by keyboard.
    // eslint-disable-next-line jsx-a11y/no-static-element-interactions
    <div
      className="flex min-h-0 flex-1 flex-col gap-4 p-5"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        if (event.dataTransfer.files.length === 0) return;
        event.preventDefault();
        drop(event.dataTransfer.files);
      }}
    >
      <label className="flex min-h-0 max-w-3xl flex-1 flex-col gap-1 text-base font-bold">
        {TEXTS.paste}
        <span className="text-sm font-normal text-ink-soft">{TEXTS.pasteHint}</span>
        <textarea
          value={text}
          onChange={(event) => setText(event.target.value)}
          onPaste={(event) => {
            const pasted = event.clipboardData.getData("text/plain");
            if (pasted.trim() && !text.trim()) read.mutate(pasted);
          }}
          placeholder={TEXTS.dubeThandiPElleryJosh}
          className="min-h-40 flex-1 resize-none rounded-md border border-control bg-paper p-3 text-sm font-normal"
        />
      </label>
      {error instanceof Problem && (
        <div className="max-w-3xl">
          <Notice title={error.title} fix={error.fix} />
        </div>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <Button look="main" className="min-h-9" disabled={!text.trim() || read.isPending} onClick={() => read.mutate(text)}>
          {read.isPending ? TEXTS.reading : TEXTS.seeWhatItDoes}
        </Button>
        <input ref={chooser} type="file" accept=".csv,.txt,.tsv,.xlsx,.zip" className="hidden" aria-label={TEXTS.file} onChange={(event) => drop(event.target.files)} />
        <Button className="min-h-9" icon={<FileUp aria-hidden size={16} />} disabled={open.isPending} onClick={() => chooser.current?.click()}>
          {open.isPending ? TEXTS.reading : TEXTS.file}
        </Button>
        <span className="text-quiet">{TEXTS.filehintNothingIsWrittenBefore({ fileHint: TEXTS.fileHint })}</span>
      </div>
    </div>
  );
}

interface ReadProps {
  groupId: number;
  roster: Schema["RosterShape"];
  drop: number | null;
  first: Table;
  work: Work;
  onWork: (change: (old: Work) => Work) => void;
  onRestart: () => void;
  onClose: () => void;
  onDone: () => void;
}

/** The list as read, with what it would do. */
function Read({ groupId, roster, drop, first, work, onWork, onRestart, onClose, onDone }: ReadProps) {
  const table = work.table ?? first;
  const { asNew, leave, familyFirst, turned } = work;
  const setTable = (change: (old: Table) => Table) => onWork((old) => ({ ...old, table: change(old.table ?? first) }));
  const queries = useQueryClient();
  const say = useSay();
  const body = { heading: table.heading, rows: table.rows, columns: table.columns, as_new: asNew, family_first: familyFirst, turned, drop };
  const settled = useSettled(body);
  const preview = useQuery({
    queryKey: ["group", groupId, "list", settled],
    placeholderData: (old: Preview | undefined) => old,
    queryFn: () => data(client.POST("/api/groups/{group_id}/roster/preview", { params: { path: { group_id: groupId } }, body: settled })),
  });
  const setColumn = (place: number, column: Column) =>
    setTable((old) => ({
      ...old,
      columns: old.columns.map((one, other) => (other === place ? column : one === column && column !== "ignore" ? "ignore" : one)),
    }));
  const setCell = (row: number, place: number, cell: string) =>
    setTable((old) => ({
      ...old,
      rows: old.rows.map((cells, other) => (other === row ? cells.map((one, at) => (at === place ? cell : one)) : cells)),
    }));
  const done = async (words: string, undo: (() => void) | undefined) => {
    onDone();
    await queries.invalidateQueries({ queryKey: ["group", groupId] });
    say(words, undo);
    onClose();
  };
  return (
    <>
      {preview.error instanceof Problem && (
        <div className="px-5 pt-3">
          <Notice title={preview.error.title} fix={preview.error.fix} />
        </div>
      )}
      <ListLines
        table={table}
        preview={preview.data ?? null}
        onColumn={setColumn}
        onCell={setCell}
        onAsNew={(line) => onWork((old) => ({ ...old, asNew: [...old.asNew, line] }))}
        familyFirst={familyFirst}
        onFamilyFirst={(chosen) => onWork((old) => ({ ...old, familyFirst: chosen }))}
        onTurn={(line) => onWork((old) => ({ ...old, turned: old.turned.includes(line) ? old.turned.filter((one) => one !== line) : [...old.turned, line] }))}
        onRestart={onRestart}
      />
      <ListApply
        groupId={groupId}
        body={body}
        begins={first.first ?? null}
        roster={roster}
        preview={preview.error ? null : (preview.data ?? null)}
        settled={!preview.isPlaceholderData && JSON.stringify(settled) === JSON.stringify(body)}
        leave={leave}
        onLeave={(chosen) => onWork((old) => ({ ...old, leave: chosen }))}
        onDone={done}
      />
    </>
  );
}
