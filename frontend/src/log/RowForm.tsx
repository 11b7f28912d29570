/** A row being written: one field a column, Enter keeps it, what does not fit says so at its field. */
import { useMutation } from "@tanstack/react-query";
import { Paperclip } from "lucide-react";
import { useId, useRef, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { upload } from "../api/upload";
import { together, useDraft } from "../writing/useDraft";
import { Button } from "../ui/Button";
import { lengthWords } from "../ui/Chips";
import { DateField } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import { heading } from "./cells";
import type { Column, Log, Row, Values } from "./cells";
import { TEXTS } from "./texts";

interface Props {
  log: Log;
  portfolio: number;
  pocket: number;
  row?: Row;
  today: string;
  onSaved: (saved: Schema["SavedRow"]) => Promise<void>;
  onCancel?: () => void;
}

const FIELD = "mt-1 block min-h-11 w-full rounded-md border bg-paper px-3 text-base font-normal";

// eslint-disable-next-line complexity -- one branch for each thing the form may have to say
export function RowForm({ log, portfolio, pocket, row, today, onSaved, onCancel }: Props) {
  const columns = log.columns ?? [];
  const first = columns.find((one) => one.type === "date")?.key;
  const fresh: Values = first ? { [first]: today } : {};
  const [values, setValues] = useState<Values>(row ? row.values : fresh);
  const [base, setBase] = useState(row?.version ?? 0);
  const name = `row/${portfolio}/${pocket}/${row?.id ?? "new"}`;
  const form = useRef<HTMLFormElement>(null);
  const typed = JSON.stringify(values) !== JSON.stringify(row ? row.values : fresh);
  // What was typed here and never sent comes back, over the version it was typed over: a newer one is never lost untold.
  const drop = useDraft(name, values, base, typed, (kept, over) => {
    setValues((now) => together(kept, now, row ? row.values : fresh));
    setBase(over);
  });
  const change = (key: string, value: string | boolean | number | null) => setValues((old) => ({ ...old, [key]: value }));
  const save = useMutation({
    mutationFn: (body: Schema["RowIn"]) =>
      row
        ? data(client.PUT("/api/rows/{row_id}", { params: { path: { row_id: row.id } }, body }))
        : data(client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/rows", { params: { path: { portfolio_id: portfolio, pocket_id: pocket } }, body })),
    onSuccess: async (saved) => {
      drop();
      if (!row) {
        setValues({ ...fresh, ...(first ? { [first]: values[first] ?? today } : {}) });
        form.current?.querySelector<HTMLElement>("input, select, textarea")?.focus();
      }
      await onSaved(saved);
    },
    onError: (error) => {
      if (error instanceof Problem && error.kind === "stale") setBase(Number(error.more.version));
    },
  });
  const problem = save.error instanceof Problem ? save.error : null;
  const wrong = (Array.isArray(problem?.more.wrong) ? problem.more.wrong : []) as Schema["WrongCell"][];
  return (
    <form
      ref={form}
      noValidate
      aria-label={row ? TEXTS.changeTheRow : TEXTS.newRow}
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate({ values, version: base });
      }}
      className="flex flex-col gap-3 text-left whitespace-normal"
    >
      <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
        {columns.map((one) => (
          <Field key={one.key} column={one} value={values[one.key] ?? null} wrong={wrong.find((of) => of.column === one.key)} portfolio={portfolio} pocket={pocket} onChange={(value) => change(one.key, value)} />
        ))}
      </div>
      {problem && wrong.length === 0 && <Notice title={problem.title} fix={problem.away ? TEXTS.whatYouWroteIsKept : problem.fix} />}
      <div className="flex flex-wrap items-center gap-2">
        <Button big type="submit" disabled={save.isPending}>
          {row ? TEXTS.keepTheChanges : TEXTS.addTheRow}
        </Button>
        {onCancel && (
          <Button
            big
            look="quiet"
            onClick={() => {
              drop();
              onCancel();
            }}
          >
            {TEXTS.cancel}
          </Button>
        )}
      </div>
    </form>
  );
}

interface FieldProps {
  column: Column;
  value: string | boolean | number | null;
  wrong: Schema["WrongCell"] | undefined;
  portfolio: number;
  pocket: number;
  onChange: (value: string | boolean | number | null) => void;
}

// eslint-disable-next-line complexity -- one branch for each type of column
function Field({ column, value, wrong, portfolio, pocket, onChange }: FieldProps) {
  const id = useId();
  const says = wrong ? `${id}-wrong` : undefined;
  const shared = { id, "aria-invalid": wrong !== undefined, "aria-describedby": says, className: `${FIELD} ${wrong ? "border-overdue" : "border-control"}` };
  const text = typeof value === "string" ? value : "";
  const wide = column.type === "long_text" ? "sm:col-span-2" : "";
  const told = wrong && (
    <p id={says} role="alert" className="mt-1 text-sm text-overdue">
      {wrong.what} {wrong.fix}
    </p>
  );
  if (column.type === "date") {
    return (
      <div>
        <DateField big label={heading(column)} hint={column.required ? TEXTS.needed : ""} value={text} onChange={onChange} refused={says} />
        {told}
      </div>
    );
  }
  return (
    <div className={wide}>
      <label htmlFor={id} className="text-base font-bold">
        {heading(column)}
        {column.required && <span className="font-normal text-quiet">{" "}{TEXTS.needed}</span>}
        {column.measure && <span className="font-normal text-quiet"> {lengthWords({ measure: column.measure, least: column.least, most: column.most ?? null })}</span>}
      </label>
      {column.type === "choice" ? (
        <select {...shared} value={text} onChange={(event) => onChange(event.target.value)}>
          <option value="" />
          {(column.choices ?? []).map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      ) : column.type === "yes_no" ? (
        <select {...shared} value={value === null ? "" : value === true ? "yes" : "no"} onChange={(event) => onChange(event.target.value === "" ? null : event.target.value === "yes")}>
          <option value="" />
          <option value="yes">{TEXTS.yes}</option>
          <option value="no">{TEXTS.no}</option>
        </select>
      ) : column.type === "long_text" ? (
        <textarea {...shared} rows={2} value={text} onChange={(event) => onChange(event.target.value)} className={`${shared.className} py-2`} />
      ) : column.type === "artefact" ? (
        <FileField id={id} value={value} portfolio={portfolio} pocket={pocket} onChange={onChange} />
      ) : (
        <input
          {...shared}
          type="text"
          inputMode={column.type === "number" ? "decimal" : column.type === "link" ? "url" : undefined}
          autoComplete="off"
          value={text}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
      {told}
    </div>
  );
}

function FileField({ id, value, portfolio, pocket, onChange }: Omit<FieldProps, "column" | "wrong"> & { id: string }) {
  const input = useRef<HTMLInputElement>(null);
  const [title, setTitle] = useState("");
  const send = useMutation({
    mutationFn: (file: File) => upload<Schema["ArtefactShape"]>(`/api/portfolios/${portfolio}/pockets/${pocket}/row-files`, file),
    onSuccess: (kept) => {
      setTitle(kept.title);
      onChange(kept.id);
    },
  });
  return (
    <div className="mt-1 flex flex-wrap items-center gap-2">
      <input
        ref={input}
        type="file"
        hidden
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) send.mutate(file);
          event.target.value = "";
        }}
      />
      <Button id={id} big icon={<Paperclip aria-hidden size={18} />} disabled={send.isPending} onClick={() => input.current?.click()}>
        {send.isPending ? TEXTS.onItsWay : value === null ? TEXTS.addAPhotoOrFile : TEXTS.takeAnotherOne}
      </Button>
      {value !== null && (
        <>
          <span className="min-w-0 truncate">{title || TEXTS.keptArtefact}</span>
          <Button look="quiet" onClick={() => onChange(null)}>
            {TEXTS.takeOff}
          </Button>
        </>
      )}
      {send.error instanceof Problem && <Notice title={send.error.title} fix={send.error.fix} />}
    </div>
  );
}
