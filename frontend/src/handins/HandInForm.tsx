/** A new hand-in; as it is filled in it shows who will get it and when. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useEffect, useState } from "react";
import { useFieldArray, useForm, useWatch } from "react-hook-form";
import type { Control, UseFormRegister } from "react-hook-form";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { usePersonId } from "../api/session";
import { useUndo } from "../live/useUndo";
import { Button } from "../ui/Button";
import { day, due } from "../ui/dates";
import { FormDate } from "../ui/days/DateField";
import { Foot } from "../ui/Foot";
import { newKey } from "../ui/newKey";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { keepDraft } from "../writing/drafts";
import { useBack } from "../writing/useBack";
import { useDraft } from "../writing/useDraft";
import { firstFields, planOf } from "./plan";
import type { Fields } from "./plan";
import { TEXTS } from "./texts";

interface Props {
  data: Schema["HandInsShape"];
  groupId: number;
  onClose: () => void;
}

const FIELD = "mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal";
const LABEL = "font-bold";

export function HandInForm({ data, groupId, onClose }: Props) {
  const form = useForm<Fields>({ defaultValues: firstFields(data) });
  const fields = useWatch({ control: form.control }) as Fields;
  // Pressed twice, or sent again after a lost answer, it is one hand-in.
  const [key] = useState(newKey);
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndo(groupId);
  const person = usePersonId();
  const changed = JSON.stringify(fields) !== JSON.stringify(firstFields(data));
  const drop = useDraft(`hand-in/${groupId}`, fields, 0, changed, useBack(form, 0));
  // It may have opened below what was looked at: the keyboard goes on in it, and it comes into view.
  const { setFocus } = form;
  useEffect(() => setFocus("title"), [setFocus]);
  const path = { params: { path: { group_id: groupId } } };
  const takeBack = async (handin_id: number, filled: Fields) => {
    await answer(client.DELETE("/api/groups/{group_id}/handins/{handin_id}", { params: { path: { group_id: groupId, handin_id } } }));
    await keepDraft(person, `hand-in/${groupId}`, { text: JSON.stringify(filled), base: 0 });
  };
  const set = useMutation({
    mutationFn: (filled: Fields) => answer(client.POST("/api/groups/{group_id}/handins", { ...path, body: { ...planOf(filled), key } })),
    onSuccess: async (made, filled) => {
      drop();
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      say(TEXTS.titleIsSetItHangs({ title: made.title }), undo(() => takeBack(made.id, filled), TEXTS.titleIsTakenBackIts({ title: made.title })));
      onClose();
    },
  });
  return (
    <aside aria-labelledby="new-handin" className="flex w-[420px] shrink-0 flex-col rounded-lg border border-edge bg-paper max-lg:w-full lg:overflow-y-auto">
      <div className="flex items-center justify-between px-5 pt-4">
        <h2 id="new-handin" className="text-lg">
          {TEXTS.newHandIn}
        </h2>
        <button type="button" aria-label={TEXTS.closeTheForm} onClick={onClose} className="-m-2 p-2">
          <X aria-hidden size={18} />
        </button>
      </div>
      <form
        noValidate
        onSubmit={(event) => void form.handleSubmit((filled) => set.mutateAsync(filled).catch(() => undefined))(event)}
        className="flex flex-1 flex-col gap-4 px-5 pt-3"
      >
        <label className={LABEL}>
          {TEXTS.title}
          <input {...form.register("title")} className={FIELD} autoComplete="off" />
        </label>
        <Pockets data={data} control={form.control} onChange={(chosen) => form.setValue("pockets", chosen)} />
        <FormDate label={TEXTS.opens} control={form.control} name="opens" />
        <div className="grid grid-cols-2 gap-3">
          <FormDate label={TEXTS.due} control={form.control} name="day" />
          <label className={LABEL}>
            {TEXTS.at}{" "}<span className="font-normal text-quiet">{TEXTS.orEndOfDay}</span>
            <input type="time" {...form.register("time")} className={FIELD} />
          </label>
        </div>
        {data.all_periods.length > 0 && <Periods fields={fields} register={form.register} control={form.control} />}
        <label className={LABEL}>
          {TEXTS.points}{" "}<span className="font-normal text-quiet">{TEXTS.mayStayEmpty}</span>
          <input {...form.register("points")} inputMode="decimal" autoComplete="off" className={`${FIELD} figures max-w-28`} />
        </label>
        <Foot className="sticky bottom-0 low:static -mx-5 mt-auto">
          <div className="max-h-44 overflow-y-auto">
            <Preview fields={fields} groupId={groupId} />
          </div>
          {set.error instanceof Problem && <Notice title={set.error.title} fix={set.error.fix} />}
          <div className="flex justify-end gap-2">
            <Button className="min-h-9" onClick={onClose}>
              {TEXTS.cancel}
            </Button>
            <Button look="main" className="min-h-9" type="submit" disabled={set.isPending}>
              {TEXTS.setTheHandIn}
            </Button>
          </div>
        </Foot>
      </form>
    </aside>
  );
}

function Pockets({ data, control, onChange }: { data: Props["data"]; control: Control<Fields>; onChange: (ids: number[]) => void }) {
  const chosen = useWatch({ control, name: "pockets" });
  const sections = [...new Set(data.pockets.map((pocket) => pocket.section))];
  const toggle = (id: number) => onChange(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <fieldset>
      <legend className={LABEL}>{TEXTS.pocketsItCollects}</legend>
      <div className="mt-1 max-h-32 overflow-y-auto rounded-md border border-control px-3 py-1">
        {sections.map((section) => (
          <div key={section} className="py-1">
            <p className="text-xs text-quiet">{section}</p>
            {data.pockets
              .filter((pocket) => pocket.section === section)
              .map((pocket) => (
                <label key={pocket.id} className="flex min-h-7 items-center gap-2">
                  <input type="checkbox" className="size-4 accent-ink" checked={chosen.includes(pocket.id)} onChange={() => toggle(pocket.id)} />
                  {pocket.title}
                </label>
              ))}
          </div>
        ))}
        {data.pockets.length === 0 && <p className="py-2">{TEXTS.thisClassHasNoPockets}</p>}
      </div>
    </fieldset>
  );
}

function Periods({ fields, register, control }: { fields: Fields; register: UseFormRegister<Fields>; control: Control<Fields> }) {
  const rows = useFieldArray({ control, name: "periods", keyName: "key" });
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className={LABEL}>{TEXTS.periods}</legend>
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" {...register("forEveryone")} />
        {TEXTS.forEveryoneInTheClass}
      </label>
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" {...register("byPeriod")} />
        {TEXTS.anotherDueDateForSome}
      </label>
      {(!fields.forEveryone || fields.byPeriod) && (
        <ul className="mt-1 flex flex-col gap-2">
          {rows.fields.map((row, place) => (
            <li key={row.key} className="flex flex-wrap items-center gap-2">
              {fields.forEveryone ? (
                <span className="w-20 font-semibold">{row.name}</span>
              ) : (
                <label className="flex w-20 items-center gap-2 font-semibold">
                  <input type="checkbox" className="size-4 accent-ink" {...register(`periods.${place}.asked`)} />
                  {row.name}
                </label>
              )}
              {fields.byPeriod && (
                <>
                  <FormDate heard label={TEXTS.nameDue({ name: row.name })} control={control} name={`periods.${place}.day`} className="w-48" />
                  <input
                    type="time"
                    aria-label={TEXTS.nameDueAt({ name: row.name })}
                    {...register(`periods.${place}.time`)}
                    className="min-h-9 rounded-md border border-control px-2"
                  />
                </>
              )}
            </li>
          ))}
        </ul>
      )}
    </fieldset>
  );
}

/** Who will get it and when, by the server's own rules. */
function Preview({ fields, groupId }: { fields: Fields; groupId: number }) {
  const asked = useSettled(planOf(fields));
  const ready = asked.pockets.length > 0 && asked.title.trim() !== "" && asked.opens !== "";
  const preview = useQuery({
    queryKey: ["group", groupId, "preview", asked],
    enabled: ready,
    placeholderData: (old: Schema["PreviewShape"] | undefined) => old,
    queryFn: () =>
      answer(
        client.POST("/api/groups/{group_id}/handins/preview", {
          params: { path: { group_id: groupId } },
          body: asked,
        }),
      ),
  });
  if (!ready) return <p className="text-quiet">{TEXTS.giveItATitleAnd}</p>;
  if (preview.error instanceof Problem) return <Notice title={preview.error.title} fix={preview.error.fix} />;
  if (!preview.data) return null;
  const { asked: number, not_asked, dues, moved, without_due, warnings } = preview.data;
  return (
    <section aria-label={TEXTS.whoWillGetIt} aria-live="polite" className="rounded-md bg-in-soft p-3">
      <p className="font-bold">
        {TEXTS.studentsWillBeAsked({ number, not_asked, not_askedIs: not_asked > 0 })}
      </p>
      <ul>
        {dues.map((line) => (
          <li key={`${line.day ?? ""} ${line.at ?? ""}`} className="figures flex justify-between gap-3">
            <span>{line.day ? due(line.day, line.at) : TEXTS.noDueDate}</span>
            <span>{line.students}</span>
          </li>
        ))}
      </ul>
      {moved.length > 0 && (
        <details className="mt-2">
          <summary className="font-semibold">{TEXTS.studentsWithExtraDays({ count: moved.length })}</summary>
          <ul>
            {moved.map((one) => (
              <li key={one.name}>
                {TEXTS.nameDaySchoolDaysAdded({ name: one.name, day: day(one.day), extra_days: one.extra_days })}
              </li>
            ))}
          </ul>
        </details>
      )}
      {without_due.length > 0 && <p className="mt-2 text-overdue">{TEXTS.inNoPeriodSoWithout({ without_due: without_due.join("; ") })}</p>}
      {warnings.map((warning) => (
        <p key={warning} className="mt-2 rounded-sm bg-today p-2">
          {warning}
        </p>
      ))}
    </section>
  );
}
