/** The units of a section that repeats, each with its questions; what is typed here is a change of the draft. */
import { useEffect, useState } from "react";
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { useFieldArray, useForm, useWatch } from "react-hook-form";
import type { Control, UseFormRegister } from "react-hook-form";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { FormDate } from "../ui/days/DateField";
import { useSay } from "../ui/Toasts";
import { newKey } from "../ui/newKey";
import { today } from "../ui/dates";
import { parseDay } from "../ui/days/parseDay";
import { OUTLINE } from "./outlineTexts";
import { PasteBox } from "./PasteBox";
import { TEXTS } from "./texts";
import type { SetUnits, TemplateDraft } from "./useTemplateDraft";

type Section = Schema["LaidSection"];

interface Fields {
  units: { key: string; title: string; opens: string; questions: { key: string; text: string }[] }[];
}

const FIELD = "min-h-9 rounded-md border border-control bg-paper px-3 disabled:border-edge disabled:text-ink";
const ICON = "flex size-8 items-center justify-center rounded-sm text-ink-soft hover:bg-ground disabled:opacity-30";

function fieldsOf(units: Section["units"]): Fields {
  return {
    units: units.map((one) => ({ key: one.key, title: one.title, opens: one.opens ?? "", questions: (one.questions ?? []).map((of) => ({ ...of })) })),
  };
}

function bodyOf(fields: Fields, version: number): Schema["UnitsIn"] {
  return {
    units: fields.units
      .map((one) => ({ key: one.key, title: one.title, opens: one.opens || null, questions: one.questions.filter((of) => of.text.trim()) }))
      // Of a unit that is only begun there is nothing to say yet.
      .filter((one) => one.title.trim() || one.questions.length > 0),
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

interface Props {
  /** As it would stand. */
  section: Section;
  /** As it stands; null where the draft adds it. */
  live: Section | null;
  /** What was typed into it and is not saved. */
  pending: SetUnits | undefined;
  draft: TemplateDraft;
  groupId: number;
  may: boolean;
}

export function UnitsForm({ section, live, pending, draft, groupId, may }: Props) {
  const [start] = useState<Fields>(() => fieldsOf((pending?.units ?? live ?? section).units));
  const form = useForm<Fields>({ defaultValues: start, disabled: !may });
  const fields = { ...start, ...useWatch({ control: form.control }) } as Fields;
  const units = useFieldArray({ control: form.control, name: "units", keyName: "id" });
  const version = live?.version ?? 0;
  const text = JSON.stringify(bodyOf(fields, version));
  const changed = text !== JSON.stringify(bodyOf(fieldsOf(live?.units ?? []), version));
  const say = useSay();
  const { putUnits } = draft;
  useEffect(() => {
    if (may) putUnits(section.id, changed ? (JSON.parse(text) as Schema["UnitsIn"]) : null);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what is typed is put down; how it is kept changes with every change
  }, [may, section.id, changed, text]);
  return (
    <form
      noValidate
      aria-label={TEXTS.unitsOfTitle({ title: section.title })}
      onSubmit={(event) => event.preventDefault()}
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
