/** The rows of a log: a table, on a phone a list of cards. */
import { CircleDashed, Lock, Pencil, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import type { Schema } from "../api/client";
import { PutInBy } from "../ui/people/PutInBy";
import { useNarrow } from "../ui/useNarrow";
import { fileAddress } from "../viewer/files";
import { heading, words } from "./cells";
import type { Column, Log, Row } from "./cells";
import { TEXTS } from "./texts";

interface Props {
  log: Log;
  editing?: number | null;
  form?: ReactNode;
  onEdit?: (row: Row) => void;
  onRemove?: (row: Row) => void;
  /** What is said on a row. */
  remark?: (row: Row) => ReactNode;
}

export function LogTable(props: Props) {
  const narrow = useNarrow();
  if (props.log.rows.length === 0) return null;
  return narrow ? <Cards {...props} /> : <Table {...props} />;
}

function Table({ log, editing = null, form, onEdit, onRemove, remark }: Props) {
  const columns = log.columns ?? [];
  const actions = onEdit !== undefined;
  return (
      <div className="overflow-x-auto rounded-lg border border-edge bg-paper">
        <table aria-label={TEXTS.rowsOfTheLog} className="w-full border-collapse text-base">
          <thead>
            <tr className="border-b border-edge text-left text-sm">
              {columns.map((one) => (
                <th key={one.key} scope="col" className={`px-2 py-2 font-bold first:pl-3 lg:px-3 ${one.type === "number" ? "text-right" : ""}`}>
                  {heading(one)}
                </th>
              ))}
              <th scope="col" className="py-2">
                <span className="sr-only">{TEXTS.state}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {log.rows.map((row) =>
              row.id === editing ? (
                <tr key={row.id} className="border-b border-line bg-today">
                  <td colSpan={columns.length + 1} className="p-3">
                    {form}
                  </td>
                </tr>
              ) : (
                <tr key={row.id} className="border-b border-line align-top last:border-0">
                  {columns.map((one) => (
                    <td key={one.key} className={`px-2 py-2 break-words first:pl-3 lg:px-3 ${one.type === "number" ? "figures text-right" : one.type === "long_text" ? "min-w-48" : one.type === "date" ? "whitespace-nowrap" : ""}`}>
                      <Cell column={one} row={row} log={log} />
                    </td>
                  ))}
                  <td className={`py-1 text-right whitespace-nowrap ${row.by ? "pr-3" : "pr-1"}`}>
                    <RowState row={row} />
                    {remark?.(row)}
                    <PutInBy by={row.by} />
                    {actions && !row.locked && !row.by && <Acts row={row} onEdit={onEdit} onRemove={onRemove} />}
                  </td>
                </tr>
              ),
            )}
          </tbody>
        </table>
      </div>
  );
}

function Cards({ log, editing = null, form, onEdit, onRemove, remark }: Props) {
  const columns = log.columns ?? [];
  const actions = onEdit !== undefined;
  return (
      <ul aria-label={TEXTS.rowsOfTheLog} className="flex flex-col gap-3">
        {log.rows.map((row) => (
          <li key={row.id} className="rounded-lg border border-edge bg-paper p-3">
            {row.id === editing ? (
              form
            ) : (
              <div className="flex items-start gap-2">
                <div className="min-w-0 flex-1">
                  <dl>
                    {columns
                      .filter((one) => row.values[one.key] !== undefined)
                      .map((one) => (
                        <div key={one.key} className="flex gap-2 text-base">
                          <dt className="shrink-0 text-quiet">{heading(one)}</dt>
                          <dd className="min-w-0 break-words">
                            <Cell column={one} row={row} log={log} />
                          </dd>
                        </div>
                      ))}
                  </dl>
                  <RowState row={row} />
                  <PutInBy by={row.by} />
                  {remark?.(row)}
                </div>
                {actions && !row.locked && !row.by && <Acts row={row} onEdit={onEdit} onRemove={onRemove} />}
              </div>
            )}
          </li>
        ))}
      </ul>
  );
}

function Cell({ column, row, log }: { column: Column; row: Row; log: Log }) {
  const value = row.values[column.key];
  if (value === undefined) return null;
  if (column.type === "artefact") {
    const found = log.artefacts.find((one) => one.id === value);
    return found ? <Piece artefact={found} /> : null;
  }
  if (column.type === "link") {
    return (
      <a href={String(value)} target="_blank" rel="noopener noreferrer nofollow" className="break-all text-in underline">
        {String(value).replace(/^https?:\/\//, "")}
      </a>
    );
  }
  return <span className={column.type === "long_text" ? "whitespace-pre-wrap" : ""}>{words(column, value)}</span>;
}

function Piece({ artefact }: { artefact: Schema["ArtefactShape"] }) {
  return (
    <a href={fileAddress(artefact)} target="_blank" rel="noopener" className="inline-flex items-center gap-2 text-in underline">
      {artefact.kind === "picture" ? (
        <img src={`/api/artefacts/${artefact.id}/thumbnails/small`} alt={artefact.title} loading="lazy" className="size-11 rounded-sm object-cover" />
      ) : (
        artefact.title
      )}
    </a>
  );
}

function RowState({ row }: { row: Row }) {
  if (row.locked) {
    return (
      <span className="inline-flex min-h-8 items-center gap-1.5 text-sm text-quiet">
        <Lock aria-hidden size={15} />{" "}{TEXTS.handedIn}
      </span>
    );
  }
  if (row.complete) return null;
  return (
    <span className="inline-flex min-h-8 items-center gap-1.5 text-sm whitespace-normal text-copper">
      <CircleDashed aria-hidden size={15} className="shrink-0" />{" "}{TEXTS.stillToWriteMissing({ missing: row.missing.join(", ") })}
    </span>
  );
}

function Acts({ row, onEdit, onRemove }: { row: Row; onEdit: ((row: Row) => void) | undefined; onRemove: ((row: Row) => void) | undefined }) {
  const act = "inline-flex size-11 items-center justify-center rounded-md text-ink-soft hover:bg-ground";
  return (
    <span className="shrink-0 whitespace-nowrap">
      <button type="button" aria-label={TEXTS.changeThisRow} className={act} onClick={() => onEdit?.(row)}>
        <Pencil aria-hidden size={17} />
      </button>
      <button type="button" aria-label={TEXTS.takeThisRowOut} className={act} onClick={() => onRemove?.(row)}>
        <Trash2 aria-hidden size={17} />
      </button>
    </span>
  );
}
