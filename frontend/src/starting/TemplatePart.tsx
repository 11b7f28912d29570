/** What the portfolios are like: another class or a template of the gallery, some of its sections, and sections of one's own. */
import type { UseFormReturn } from "react-hook-form";
import { IndentedText } from "../laid/IndentedText";
import { likeOf } from "./fields";
import type { Choices, Fields, Section } from "./fields";
import { FIELD } from "./NamePart";
import { TEXTS } from "./texts";

interface Props {
  form: UseFormReturn<Fields>;
  fields: Fields;
  choices: Choices;
}

export function TemplatePart({ form, fields, choices }: Props) {
  const { sections, handins, items } = likeOf(fields, choices);
  return (
    <fieldset className="flex flex-col gap-3 rounded-lg border border-edge p-4">
      <legend className="px-1 text-base font-bold">{TEXTS.template}</legend>
      <label className="font-bold">
        {TEXTS.like}
        <select {...form.register("like", { onChange: () => form.setValue("without", []) })} className={FIELD}>
          <option value="">{TEXTS.likeNothing}</option>
          {choices.classes.length > 0 && (
            <optgroup label={TEXTS.mine}>
              {choices.classes.map((one) => (
                <option key={one.id} value={`class ${one.id}`}>
                  {one.name}
                </option>
              ))}
            </optgroup>
          )}
          <optgroup label={TEXTS.gallery}>
            {choices.gallery.map((one) => (
              <option key={one.id} value={`gallery ${one.id}`}>
                {one.title}
              </option>
            ))}
          </optgroup>
        </select>
      </label>
      {handins > 0 && (
        <label className="flex min-h-7 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" {...form.register("handins")} />
          {TEXTS.handins({ count: handins })}
        </label>
      )}
      {items > 0 && (
        <label className="flex min-h-7 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" {...form.register("cupboard")} />
          {TEXTS.items({ count: items })}
        </label>
      )}
      {sections.length > 0 && (
        <div role="group" aria-label={TEXTS.sections}>
          <p className="font-bold">{TEXTS.sections}</p>
          <ul className="mt-1 flex flex-col gap-1">
            {sections.map((one) => (
              <Taken key={one.key} section={one} form={form} fields={fields} />
            ))}
          </ul>
        </div>
      )}
      <IndentedText label={TEXTS.own} hint={TEXTS.ownHint} rows={4} value={fields.own} onChange={(own) => form.setValue("own", own)} />
    </fieldset>
  );
}

function Taken({ section, form, fields }: { section: Section; form: UseFormReturn<Fields>; fields: Fields }) {
  const taken = !fields.without.includes(section.key);
  const turn = () => form.setValue("without", taken ? [...fields.without, section.key] : fields.without.filter((one) => one !== section.key));
  return (
    <li className="flex items-center gap-2">
      <input type="checkbox" className="size-4 shrink-0 accent-ink" checked={taken} onChange={turn} aria-label={TEXTS.takes({ title: section.title })} />
      <input
        aria-label={TEXTS.nameOf({ title: section.title })}
        autoComplete="off"
        disabled={!taken}
        value={fields.titles[section.key] ?? section.title}
        onChange={(event) => form.setValue("titles", { ...fields.titles, [section.key]: event.target.value })}
        className="min-h-9 min-w-0 flex-1 rounded-md border border-control bg-paper px-3 disabled:border-edge disabled:text-quiet"
      />
      <span className="figures w-20 shrink-0 text-quiet">{TEXTS.pockets({ count: section.pockets })}</span>
    </li>
  );
}
