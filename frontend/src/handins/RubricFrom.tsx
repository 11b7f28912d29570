/** A rubric to begin from: out of a table or a CSV file, as of another hand-in, from the gallery. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { Table2 } from "lucide-react";
import { useId, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { rubricsQuery } from "../api/queries";
import { useGroupId } from "../api/session";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { RUBRIC } from "./rubricTexts";

type Rubric = Schema["RubricShape"];

export function RubricFrom({ onTake }: { onTake: (rubric: Rubric) => void }) {
  const groupId = useGroupId();
  const found = useQuery(rubricsQuery(groupId)).data ?? [];
  const [text, setText] = useState<string | null>(null);
  return (
    <>
      <Button icon={<Table2 aria-hidden size={16} />} aria-pressed={text !== null} onClick={() => setText(text === null ? "" : null)}>
        {RUBRIC.table}
      </Button>
      <label className="flex min-h-8 items-center gap-2">
        {RUBRIC.like}
        <select value="" onChange={(event) => onTake((found[Number(event.target.value)] ?? { rubric: { levels: [], criteria: [], halves: false, by_student: false } }).rubric)} className="min-h-8 max-w-56 rounded-md border border-control bg-paper px-2">
          <option value="" disabled>
            {RUBRIC.choose}
          </option>
          {found.map((one, at) => (
            <option key={at} value={at}>
              {one.of ? RUBRIC.ofClass({ title: one.title, of: one.of }) : RUBRIC.gallery({ title: one.title })}
            </option>
          ))}
        </select>
      </label>
      {text !== null && <FromTable text={text} onText={setText} onTake={onTake} />}
    </>
  );
}

function FromTable({ text, onText, onTake }: { text: string; onText: (text: string | null) => void; onTake: (rubric: Rubric) => void }) {
  const groupId = useGroupId();
  const id = useId();
  const read = useMutation({
    mutationFn: (from: string) => data(client.POST("/api/groups/{group_id}/rubrics/read", { params: { path: { group_id: groupId } }, body: { text: from } })),
    onSuccess: onTake,
  });
  return (
    <div className="flex basis-full flex-col gap-2 rounded-md border border-edge bg-ground p-3">
      <label className="font-bold">
        {RUBRIC.tableField}
        <textarea
          // eslint-disable-next-line jsx-a11y/no-autofocus -- it opens where somebody has pressed to paste
          autoFocus
          rows={5}
          value={text}
          placeholder={RUBRIC.tableExample}
          aria-describedby={id}
          onChange={(event) => onText(event.target.value)}
          className="mt-1 block w-full rounded-md border border-control bg-paper px-3 py-2 font-normal whitespace-pre [tab-size:8]"
        />
      </label>
      <p id={id} className="text-sm text-ink-soft">
        {RUBRIC.tableHint}
      </p>
      {read.error instanceof Problem && <Notice title={read.error.title} fix={read.error.fix} />}
      <div className="flex flex-wrap items-center gap-2">
        <Button disabled={!text.trim() || read.isPending} onClick={() => read.mutate(text)}>
          {RUBRIC.take}
        </Button>
        <label className="inline-flex min-h-8 cursor-pointer items-center rounded-md border border-edge bg-paper px-3 text-sm font-semibold focus-within:outline-2 hover:border-control">
          {RUBRIC.file}
          <input
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            className="sr-only"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = "";
              void file?.text().then((read) => onText(read));
            }}
          />
        </label>
        <Button look="quiet" onClick={() => onText(null)}>
          {RUBRIC.cancel}
        </Button>
      </div>
    </div>
  );
}
