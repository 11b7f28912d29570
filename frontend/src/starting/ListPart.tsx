/** The class list, pasted: its columns, and what each line would do where it is more than a new name. */
import type { UseFormReturn } from "react-hook-form";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { WRITTEN } from "../ui/people/texts";
import type { Fields } from "./fields";
import { TEXTS } from "./texts";

type Found = Schema["LookedListShape"];
type Column = Found["columns"][number];
const COLUMNS = Object.keys(TEXTS.columns) as Column[];
const WRONG = ["incomplete", "unreadable", "twice"];

interface Props {
  form: UseFormReturn<Fields>;
  fields: Fields;
  found: Found | undefined;
  error: unknown;
}

export function ListPart({ form, fields, found, error }: Props) {
  return (
    <fieldset className="flex flex-col gap-3 rounded-lg border border-edge p-4">
      <legend className="px-1 text-base font-bold">{TEXTS.list}</legend>
      {!fields.bySystem && (
        <label className="font-bold">
          {TEXTS.paste}
          <textarea
            {...form.register("list", { onChange: () => form.setValue("asNew", []) })}
            rows={5}
            aria-describedby="list-hint"
            className="mt-1 flex w-full rounded-md border border-control bg-paper px-3 py-2 font-normal whitespace-pre [tab-size:12]"
          />
          <span id="list-hint" className="mt-1 block text-sm font-normal text-ink-soft">
            {TEXTS.pasteHint}
          </span>
        </label>
      )}
      {!fields.list.trim() && (
        <label className="flex min-h-7 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" {...form.register("bySystem")} />
          {TEXTS.bySystem}
        </label>
      )}
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
      {found && <Read form={form} fields={fields} found={found} />}
    </fieldset>
  );
}

function Read({ form, fields, found }: { form: UseFormReturn<Fields>; fields: Fields; found: Found }) {
  const set = (place: number, column: Column) =>
    form.setValue(
      "columns",
      found.columns.map((one, other) => (other === place ? column : one === column && column !== "ignore" ? "ignore" : one)),
    );
  return (
    <div role="status" className="flex flex-col gap-2">
      <div className="overflow-x-auto">
        <table className="border-collapse">
          <thead>
            <tr>
              {found.columns.map((column, place) => (
                <th key={place} className="pr-2 pb-1 text-left font-normal">
                  <select
                    aria-label={TEXTS.columnAt({ at: place + 1, example: found.first_rows[0]?.[place] ?? "" })}
                    value={column}
                    onChange={(event) => set(place, event.target.value as Column)}
                    className="min-h-9 rounded-md border border-control bg-paper px-2 font-bold"
                  >
                    {COLUMNS.map((one) => (
                      <option key={one} value={one}>
                        {TEXTS.columns[one]}
                      </option>
                    ))}
                  </select>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {found.first_rows.map((row, at) => (
              <tr key={at}>
                {row.map((cell, place) => (
                  <td key={place} className="max-w-48 truncate pr-4 text-ink-soft">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" {...form.register("familyFirst")} />
        {WRITTEN.familyFirst} <span className="text-quiet">{WRITTEN.familyFirstHint}</span>
      </label>
      <p className="font-semibold">{countsOf(found).join(" · ")}</p>
      {found.lines.length > 0 && (
        <ul className="max-h-56 divide-y divide-line overflow-y-auto rounded-md border border-edge">
          {found.lines.map((one) => (
            <ListLine key={one.number} one={one} onAsNew={() => form.setValue("asNew", [...fields.asNew, one.number])} />
          ))}
        </ul>
      )}
    </div>
  );
}

function countsOf({ counts }: Found): string[] {
  const sum = (...verdicts: string[]) => verdicts.reduce((all, one) => all + (counts[one] ?? 0), 0);
  const [added, asked, out] = [sum("new", "joins"), sum("asked"), sum(...WRONG)];
  return [TEXTS.added({ count: added }), asked > 0 ? TEXTS.asked({ count: asked }) : "", out > 0 ? TEXTS.leftOut({ count: out }) : ""].filter(Boolean);
}

function ListLine({ one, onAsNew }: { one: Schema["LineShape"]; onAsNew: () => void }) {
  const wrong = WRONG.includes(one.verdict);
  const other = one.verdict === "joins" || one.verdict === "asked";
  return (
    <li className={`flex items-center gap-3 px-3 py-1.5 ${wrong ? "bg-overdue-soft" : ""}`}>
      <span className="min-w-0 flex-1 break-words">
        {one.verdict === "joins" && !one.why ? TEXTS.joinsFrom({ line: one.number, name: one.name }) : TEXTS.line({ line: one.number, name: one.name, named: one.name !== "", why: `${one.why} ${one.fix}`.trim() })}
      </span>
      {other && (
        <Button aria-label={TEXTS.asNewOf({ name: one.name })} title={TEXTS.asNewOf({ name: one.name })} onClick={onAsNew}>
          {TEXTS.asNew}
        </Button>
      )}
    </li>
  );
}
