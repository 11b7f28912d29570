/** What a class is called, what it is, and its days. */
import { useQuery } from "@tanstack/react-query";
import type { UseFormReturn } from "react-hook-form";
import { accountsQuery } from "../api/queries";
import { useSession } from "../api/session";
import { fullDay } from "../ui/dates";
import { FormDate } from "../ui/days/DateField";
import { isDay } from "../ui/days/parseDay";
import type { Choices, Fields } from "./fields";
import { TEXTS } from "./texts";

export const FIELD = "mt-1 flex min-h-10 w-full rounded-md border border-control bg-paper px-3 font-normal";

interface Props {
  form: UseFormReturn<Fields>;
  fields: Fields;
  choices: Choices;
  /** Starting was tried: what is missing is marked. */
  tried: boolean;
}

export function NamePart({ form, fields, choices, tried }: Props) {
  const administrator = useSession().person?.administrator ?? false;
  const kinds = (["class", "cohort", "caseload"] as const).filter((kind) => kind !== "caseload" || administrator);
  return (
    <div className="flex flex-col gap-4">
      <div className="grid grid-cols-[1fr_150px] gap-3 max-sm:grid-cols-1">
        <label className="font-bold">
          {TEXTS.name} <span className="font-normal text-quiet">{TEXTS.nameHint}</span>
          {/* The page is for typing a name first. */}
          {/* eslint-disable-next-line jsx-a11y/no-autofocus */}
          <input {...form.register("name")} autoFocus autoComplete="off" aria-invalid={(tried && !fields.name.trim()) || undefined} className={FIELD} />
        </label>
        <label className="font-bold">
          {TEXTS.itIsA}
          <select {...form.register("kind")} className={FIELD}>
            {kinds.map((kind) => (
              <option key={kind} value={kind}>
                {TEXTS.kinds[kind]}
              </option>
            ))}
          </select>
        </label>
      </div>
      {fields.kind === "caseload" && <Lead form={form} />}
      <div className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
        <FormDate label={TEXTS.first} control={form.control} name="first" />
        <FormDate label={TEXTS.last} control={form.control} name="last" />
      </div>
      <Days fields={fields} choices={choices} />
    </div>
  );
}

/** Which term the days are, or what follows from there being none. */
function Days({ fields, choices: { term, last_of_calendar: last } }: Pick<Props, "fields" | "choices">) {
  if (!term || !last) return <p className="-mt-2 text-ink-soft">{TEXTS.noTerm}</p>;
  if (isDay(fields.last) && fields.last > last) return <p className="-mt-2 rounded-md bg-today p-3">{TEXTS.beyond({ last: fullDay(last) })}</p>;
  if (fields.first === term.first && fields.last === term.last) return <p className="-mt-2 text-ink-soft">{TEXTS.inTerm({ term: term.name })}</p>;
  return null;
}

function Lead({ form }: Pick<Props, "form">) {
  const me = useSession().person?.id;
  const staff = useQuery(accountsQuery);
  return (
    <label className="font-bold">
      {TEXTS.lead}
      <select {...form.register("lead")} className={FIELD}>
        <option value="">{TEXTS.chooseSomebody}</option>
        {staff.data
          ?.filter((one) => one.active && one.person !== me)
          .map((one) => (
            <option key={one.person} value={one.person}>
              {one.name}
            </option>
          ))}
      </select>
    </label>
  );
}
