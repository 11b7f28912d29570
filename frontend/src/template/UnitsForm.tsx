/** The units of a section that repeats, each with its questions; what saving them would mean stands beside the button. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { useFieldArray, useForm, useWatch } from "react-hook-form";
import type { Control, UseFormRegister } from "react-hook-form";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { FormDate } from "../ui/days/DateField";
import { SaveBar } from "../ui/SaveBar";
import { useSay } from "../ui/Toasts";
import { newKey } from "../ui/newKey";
import { useSettled } from "../ui/useSettled";
import { useBack } from "../writing/useBack";
import { useDraft } from "../writing/useDraft";
import { today } from "../ui/dates";
import { parseDay } from "../ui/days/parseDay";
import { OUTLINE } from "./outlineTexts";
import { PasteBox } from "./PasteBox";
import { TEXTS } from "./texts";

type Section = Schema["LaidSection"];

interface Fields {
  units: { key: string; title: string; opens: string; questions: { key: string; text: string }[] }[];
}

const FIELD = "min-h-9 rounded-md border border-control bg-paper px-3 disabled:border-edge disabled:text-ink";
const ICON = "flex size-8 items-center justify-center rounded-sm text-ink-soft hover:bg-ground disabled:opacity-30";

function fieldsOf(section: Section): Fields {
  return {
    units: section.units.map((one) => ({ key: one.key, title: one.title, opens: one.opens ?? "", questions: (one.questions ?? []).map((of) => ({ ...of })) })),
  };
}

function bodyOf(fields: Fields, version: number): Schema["UnitsIn"] {
  return {
    units: fields.units.map((one) => ({ key: one.key, title: one.title, opens: one.opens || null, questions: one.questions.filter((of) => of.text.trim()) })),
    version,
  };
}

/** The units of a pasted text, with the days of theirs that could not be read. */
async function unitsIn(groupId: number, text: string): Promise<{ found: Fields["units"]; unread: string[] }> {
  const read = await data(client.POST("/api/groups/{group_id}/template/units/read", { params: { path: { group_id: groupId } }, body: { text } }));
  const days = read.map((one) => parseDay(one.opens, today()));
  return {
    found: read.map((one, at) => ({ key: newKey(), title: one.title, opens: days[at] ?? "", questions: one.questions.map((of) => ({ key: newKey(), text: of })) })),
    unread: read.flatMap((one, at) => (one.opens && !days[at] ? [one.opens] : [])),
  };
}

export function UnitsForm({ section, groupId, may }: { section: Section; groupId: number; may: boolean }) {
  const form = useForm<Fields>({ defaultValues: fieldsOf(section), disabled: !may });
  const fields = { ...fieldsOf(section), ...useWatch({ control: form.control }) } as Fields;
  const units = useFieldArray({ control: form.control, name: "units", keyName: "id" });
  const body = bodyOf(fields, section.version);
  const settled = useSettled(body);
  const changed = JSON.stringify(body) !== JSON.stringify(bodyOf(fieldsOf(section), section.version));
  const queries = useQueryClient();
  const say = useSay();
  const path = { params: { path: { group_id: groupId, section_id: section.id } } };
  const drop = useDraft(`units/${section.id}`, fields, section.version, may && changed, useBack(form, section.version));
  const meaning = useQuery({
    queryKey: ["group", groupId, "units", section.id, settled],
    // A unit that has no name yet is being typed: that is no mistake to tell of.
    enabled: may && changed && settled.units.every((one) => one.title.trim()),
    placeholderData: (old: Schema["UnitsImpact"] | undefined) => old,
    queryFn: () => data(client.POST("/api/groups/{group_id}/template/sections/{section_id}/units/preview", { ...path, body: settled })),
  });
  const save = useMutation({
    mutationFn: (filled: Schema["UnitsIn"]) => data(client.PUT("/api/groups/{group_id}/template/sections/{section_id}/units", { ...path, body: filled })),
    onSuccess: async (done, sent) => {
      drop();
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      const before = bodyOf(fieldsOf(section), done.version);
      say(TEXTS.unitsLaidOutInEvery({ count: sent.units.length }), sent.version === section.version ? () => save.mutate(before) : undefined);
    },
  });
  const current = meaning.data && !meaning.isPlaceholderData && JSON.stringify(settled) === JSON.stringify(body);
  return (
    <form
      noValidate
      aria-label={TEXTS.unitsOfTitle({ title: section.title })}
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(body);
      }}
      className="flex min-h-0 flex-1 flex-col"
    >
      <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
        <div>
          <h1 className="text-xl">{TEXTS.unitsOfTitle2({ title: section.title })}</h1>
          <p className="mt-1 max-w-3xl text-ink-soft">
            {TEXTS.eachUnitHasAllPockets}
          </p>
        </div>
        <ol className="flex max-w-3xl flex-col gap-3">
          {units.fields.map((unit, at) => (
            <li key={unit.id} aria-label={TEXTS.unitAt({ at: at + 1 })} className="rounded-lg border border-edge bg-paper p-4">
              <div className="flex flex-wrap items-end gap-3">
                <label className="min-w-48 flex-1 font-bold">
                  {TEXTS.nameOfTheUnit}
                  <input {...form.register(`units.${at}.title`)} autoComplete="off" className={`${FIELD} mt-1 block w-full font-normal`} />
                </label>
                <FormDate label={TEXTS.openFrom} hint={TEXTS.orAtOnce} control={form.control} name={`units.${at}.opens`} />
                {may && (
                  <span className="flex">
                    <button type="button" aria-label={TEXTS.moveUnitAtUp({ at: at + 1 })} className={ICON} disabled={at === 0} onClick={() => units.move(at, at - 1)}>
                      <ArrowUp aria-hidden size={15} />
                    </button>
                    <button type="button" aria-label={TEXTS.moveUnitAtDown({ at: at + 1 })} className={ICON} disabled={at === units.fields.length - 1} onClick={() => units.move(at, at + 1)}>
                      <ArrowDown aria-hidden size={15} />
                    </button>
                    <button type="button" aria-label={TEXTS.takeAwayUnitAt({ at: at + 1 })} className={ICON} onClick={() => units.remove(at)}>
                      <Trash2 aria-hidden size={15} />
                    </button>
                  </span>
                )}
              </div>
              <Questions at={at} control={form.control} register={form.register} may={may} />
            </li>
          ))}
        </ol>
        {may && (
          <div className="flex max-w-3xl flex-wrap gap-2">
            <Button icon={<Plus aria-hidden size={16} />} onClick={() => units.append({ key: newKey(), title: "", opens: "", questions: [{ key: newKey(), text: "" }] }, { focusName: `units.${units.fields.length}.title` })}>
              {TEXTS.newPattern}
            </Button>
            <PasteBox
              open={OUTLINE.units}
              label={OUTLINE.unitsField}
              hint={OUTLINE.unitsHint}
              rows={8}
              onRead={async (text) => {
                const { found, unread } = await unitsIn(groupId, text);
                units.append(found);
                if (unread.length > 0) say(OUTLINE.unitsDays({ days: unread.join(", ") }));
              }}
            />
          </div>
        )}
      </div>
      {may && (
        <SaveBar
          changed={changed}
          means={current ? <Meaning told={meaning.data} /> : undefined}
          wrong={changed ? meaning.error : null}
          refused={save.error}
          saving={save.isPending}
          onAsWas={() => {
            form.reset(fieldsOf(section));
            save.reset();
          }}
          words={TEXTS}
        />
      )}
    </form>
  );
}

function Questions({ at, control, register, may }: { at: number; control: Control<Fields>; register: UseFormRegister<Fields>; may: boolean }) {
  const { fields, append, insert, remove } = useFieldArray({ control, name: `units.${at}.questions`, keyName: "id" });
  const next = () => append({ key: newKey(), text: "" }, { focusName: `units.${at}.questions.${fields.length}.text` });
  return (
    <fieldset className="mt-3">
      <legend className="font-bold">{TEXTS.questions}</legend>
      <ol className="mt-1 flex flex-col gap-2">
        {fields.map((one, place) => (
          <li key={one.id} className="flex items-center gap-1">
            <input
              aria-label={TEXTS.questionPlaceOfUnitAt({ place: place + 1, at: at + 1 })}
              {...register(`units.${at}.questions.${place}.text`)}
              autoComplete="off"
              onPaste={(event) => {
                const lines = event.clipboardData.getData("text/plain").split("\n").map((line) => line.trim()).filter(Boolean);
                if (lines.length < 2) return;
                event.preventDefault();
                insert(place + 1, lines.map((text) => ({ key: newKey(), text })));
                // The line that was pasted into makes room where it is empty.
                if (!event.currentTarget.value.trim()) remove(place);
              }}
              onKeyDown={(event) => {
                if (event.key !== "Enter" || !may) return;
                event.preventDefault();
                next();
              }}
              className={`${FIELD} min-w-0 flex-1`}
            />
            {may && (
              <button type="button" aria-label={TEXTS.takeAwayQuestionPlaceOf({ place: place + 1, at: at + 1 })} className={ICON} onClick={() => remove(place)}>
                <Trash2 aria-hidden size={15} />
              </button>
            )}
          </li>
        ))}
      </ol>
      {may && (
        <Button className="mt-2" icon={<Plus aria-hidden size={16} />} onClick={next}>
          {TEXTS.question}
        </Button>
      )}
    </fieldset>
  );
}

/** What saving the units now would mean. */
function Meaning({ told }: { told: Schema["UnitsImpact"] }) {
  const parts = [
    told.added.length > 0 ? TEXTS.addsPockets({ count: told.added.length }) : "",
    told.changed.length > 0 ? TEXTS.changesPockets({ count: told.changed.length }) : "",
    told.retired.length > 0 ? TEXTS.retiresRetiredWithTheWork({ retired: told.retired.map((one) => `“${one}”`).join(", ") }) : "",
    told.removed.length > 0 ? TEXTS.takesAwayPocketsThatNobody({ count: told.removed.length }) : "",
  ].filter(Boolean);
  const more = told.units === 0 ? "" : TEXTS.asksThingsOfStudents({ units: Math.abs(told.units), unitsIs: told.units > 0, reached: told.reached });
  const opened = told.to_open.length > 0 ? TEXTS.fromFilledToNotFilled({ to_open: told.to_open.join("; ") }) : "";
  return (
    <p role="status" aria-label={TEXTS.whatSavingMeans} className="rounded-md border-l-4 border-in bg-in-soft p-3">
      <strong>{TEXTS.savingThisNow}</strong>{" "}{TEXTS.otherChangesNoPocketIn({ parts: parts.join(", "), countIs: parts.length > 0, students: told.students, more, opened })}
    </p>
  );
}
