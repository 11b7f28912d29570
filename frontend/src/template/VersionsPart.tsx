/** Several versions of a pocket's directions and starter, how they are dealt, and who gets which. */
import { useMutation } from "@tanstack/react-query";
import { Paperclip, Plus, Shuffle, Trash2 } from "lucide-react";
import { useRef, useState } from "react";
import { useFieldArray } from "react-hook-form";
import type { Control, UseFormRegister, UseFormSetValue } from "react-hook-form";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { RichField } from "../writing/rich/RichField";
import { newVersion } from "./fields";
import type { Fields, VersionFields } from "./fields";
import { OUTLINE } from "./outlineTexts";
import { PasteBox } from "./PasteBox";
import { useGiving } from "./giving";
import { PocketFiles } from "./PocketFiles";
import { rangesOf, withFiles, withRanges, withTexts } from "./ranges";
import { TEXTS } from "./texts";
import type { Laid } from "./texts";
import { COUNTED } from "../ui/texts";
import type { TemplateDraft } from "./useTemplateDraft";

interface Props {
  fields: Fields;
  control: Control<Fields>;
  register: UseFormRegister<Fields>;
  setValue: UseFormSetValue<Fields>;
  may: boolean;
  template: Schema["TemplateShape"];
  /** As it would stand. */
  pocket: Laid;
  draft: TemplateDraft;
  groupId: number;
  dealt: Schema["DealtVersion"][];
  nowhere: string[];
}

const WAYS = {
  "": TEXTS.everybodyHasTheSame,
  surname: TEXTS.bySurnameRange,
  period: TEXTS.byPeriod,
  group: TEXTS.byGroup,
  random: TEXTS.atRandomBalanced,
  hand: TEXTS.byHand,
} as const;
const SMALL = "min-h-9 rounded-md border border-control bg-paper px-2 font-normal disabled:border-edge disabled:text-ink";
const MOST = 12;
/** Versions of one pocket. */

export function VersionsPart({ fields, control, register, setValue, may, template, pocket, draft, groupId, dealt, nowhere }: Props) {
  const { fields: rows, append, remove, replace } = useFieldArray({ control, name: "versions", keyName: "id" });
  const by = fields.variantsBy;
  const choose = (value: Fields["variantsBy"]) => {
    setValue("variantsBy", value);
    if (value && rows.length === 0) append([newVersion("A", "M"), newVersion("N", "Z")], { shouldFocus: false });
  };
  return (
    <fieldset className="flex flex-col gap-3 rounded-lg border border-edge bg-paper p-4">
      <legend className="px-1 font-bold">{TEXTS.versions}</legend>
      <Dealing fields={fields} may={may} onChoose={choose} onReplace={replace} onSeed={(seed) => setValue("seed", seed)} />
      {by && (
        <ol className="flex flex-col gap-3">
          {rows.map((row, at) => (
            <VersionRow
              key={row.id}
              at={at}
              fields={fields}
              control={control}
              register={register}
              may={may}
              template={template}
              pocket={pocket}
              draft={draft}
              groupId={groupId}
              dealt={dealt.find((one) => one.key === fields.versions[at]?.key)}
              onRemove={rows.length > 2 ? () => remove(at) : undefined}
            />
          ))}
        </ol>
      )}
      {by && nowhere.length > 0 && (
        <p className="text-copper">
          {TEXTS.inNoThatAVersion({ period: by === "period", nowhere: nowhere.join("; ") })}
        </p>
      )}
      {by && may && rows.length < MOST && (
        <div className="flex flex-wrap gap-3">
          <FileForEach fields={fields} pocket={pocket} draft={draft} groupId={groupId} onReplace={replace} />
          <Button icon={<Plus aria-hidden size={16} />} onClick={() => append(newVersion())}>
            {TEXTS.version}
          </Button>
        </div>
      )}
      {by === "hand" && <ByHand fields={fields} dealt={dealt} may={may} onChange={(hand) => setValue("hand", hand)} />}
    </fieldset>
  );
}

interface DealingProps {
  fields: Fields;
  may: boolean;
  onChoose: (by: Fields["variantsBy"]) => void;
  onReplace: (versions: VersionFields[]) => void;
  onSeed: (seed: number) => void;
}

/** How versions are dealt; and all of them at once, from a line of ranges or one text. */
function Dealing({ fields, may, onChoose, onReplace, onSeed }: DealingProps) {
  const by = fields.variantsBy;
  return (
    <>
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          {TEXTS.dealt}
          <select value={by} disabled={!may} onChange={(event) => onChoose(event.target.value as Fields["variantsBy"])} className={SMALL}>
            {Object.entries(WAYS).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
        {by === "random" && may && (
          <Button icon={<Shuffle aria-hidden size={16} />} onClick={() => onSeed(Math.floor(Math.random() * 2 ** 31))}>
            {TEXTS.dealAgain}
          </Button>
        )}
        {by === "surname" && may && <Ranges key={rangesOf(fields.versions)} versions={fields.versions} onChange={onReplace} />}
      </div>
      {by && may && (
        <PasteBox
          open={OUTLINE.versionTexts}
          label={OUTLINE.versionTextsField}
          hint={by === "surname" ? OUTLINE.versionTextsBySurname : OUTLINE.versionTextsHint}
          rows={6}
          onRead={(text) => {
            onReplace(withTexts(text, fields.versions));
            return Promise.resolve();
          }}
        />
      )}
    </>
  );
}

interface RowProps extends Pick<Props, "fields" | "control" | "register" | "may" | "template" | "pocket" | "draft" | "groupId"> {
  at: number;
  dealt: Schema["DealtVersion"] | undefined;
  onRemove: (() => void) | undefined;
}

/** One version: its name, who has it, its own texts. */
function VersionRow({ at, fields, control, register, may, template, pocket, draft, groupId, dealt, onRemove }: RowProps) {
  const by = fields.variantsBy;
  return (
    <li aria-label={TEXTS.versionAt({ at: at + 1 })} className="flex flex-col gap-2 border-t border-line pt-3">
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2 font-bold">
          {TEXTS.version}
          <input {...register(`versions.${at}.name`)} placeholder={TEXTS.versionAt({ at: at + 1 })} autoComplete="off" className={`${SMALL} w-40`} />
        </label>
        {by === "surname" && <Range at={at} register={register} />}
        {may && onRemove && (
          <button type="button" aria-label={TEXTS.takeAwayVersionAt({ at: at + 1 })} className="ml-auto flex size-8 items-center justify-center rounded-sm text-ink-soft hover:bg-ground" onClick={onRemove}>
            <Trash2 aria-hidden size={15} />
          </button>
        )}
      </div>
      {(by === "period" || by === "group") && <Places at={at} places={by === "period" ? template.periods : template.groups} register={register} />}
      <RichField label={TEXTS.directionsOfThisVersion} hint={TEXTS.emptyTheSameAsAbove} name={`versions.${at}.directions`} control={control} may={may} lesser />
      {fields.kind === "page" && (
        <RichField label={TEXTS.starterOfThisVersion} hint={TEXTS.emptyTheSameAsAbove} name={`versions.${at}.starter`} control={control} may={may} lesser pageIn={groupId} />
      )}
      <VersionFiles at={at} fields={fields} pocket={pocket} draft={draft} groupId={groupId} may={may} />
      <Whose of={dealt} />
    </li>
  );
}

/** Files that only who has this version is given. */
function VersionFiles({ at, fields, ...rest }: Pick<Props, "fields" | "pocket" | "draft" | "groupId" | "may"> & { at: number }) {
  const version = fields.versions[at]?.key ?? "";
  return (
    <>
      <PocketFiles {...rest} version={version} use="directions" title={OUTLINE.versionFiles} hint={OUTLINE.versionFilesHint} />
      {fields.kind === "evidence" && <PocketFiles {...rest} version={version} use="starter" title={OUTLINE.versionStarters} hint={TEXTS.studentsBeginFromThemUnchanged} />}
    </>
  );
}

interface ForEachProps {
  fields: Fields;
  pocket: Laid;
  draft: TemplateDraft;
  groupId: number;
  onReplace: (versions: VersionFields[]) => void;
}

/** A file for each version, chosen or dropped at once: evidence begins with it, a page with its words where it is plain text; else it is given beside the directions. */
function FileForEach({ fields, pocket, draft, groupId, onReplace }: ForEachProps) {
  const chooser = useRef<HTMLInputElement>(null);
  const giving = useGiving(groupId, pocket.id, draft);
  const give = useMutation({
    mutationFn: async (files: File[]) => {
      const made = await withFiles(files, fields.versions, fields.kind);
      onReplace(made.versions);
      for (const { file, version } of made.given) await giving.give(file, fields.kind === "evidence" ? "starter" : "directions", version);
    },
  });
  const take = (files: FileList | null) => {
    if (files?.length) give.mutate([...files].sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true })).slice(0, MOST));
  };
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- dropping is a short cut for the button inside
    <div
      role="group"
      aria-label={OUTLINE.fileForEach}
      className="flex flex-wrap items-center gap-2 rounded-md border border-dashed border-control px-2 py-1"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        take(event.dataTransfer.files);
      }}
    >
      <input
        ref={chooser}
        type="file"
        multiple
        hidden
        aria-label={OUTLINE.fileForEach}
        onChange={(event) => {
          take(event.target.files);
          event.target.value = "";
        }}
      />
      <Button icon={<Paperclip aria-hidden size={16} />} disabled={give.isPending} onClick={() => chooser.current?.click()}>
        {give.isPending ? TEXTS.onItsWay : OUTLINE.fileForEach}
      </Button>
      <span className="text-quiet">{OUTLINE.fileForEachHint}</span>
      {give.error instanceof Problem && <Notice title={give.error.title} fix={give.error.fix} />}
    </div>
  );
}

/** All ranges in one line: as many versions as it has. */
function Ranges({ versions, onChange }: { versions: VersionFields[]; onChange: (versions: VersionFields[]) => void }) {
  const [text, setText] = useState(rangesOf(versions));
  const made = withRanges(text, versions);
  const take = () => {
    if (made && text !== rangesOf(versions)) onChange(made);
  };
  return (
    <label className="flex flex-wrap items-center gap-2">
      {OUTLINE.ranges}
      <input
        value={text}
        autoComplete="off"
        aria-invalid={made === null || undefined}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          take();
        }}
        className={`${SMALL} w-56`}
      />
      {made === null && <span className="text-sm text-overdue">{OUTLINE.rangesLike}</span>}
    </label>
  );
}

function Range({ at, register }: { at: number; register: UseFormRegister<Fields> }) {
  return (
    <span className="flex items-center gap-2">
      <label className="flex items-center gap-2">
        {TEXTS.from}
        <input {...register(`versions.${at}.first`)} maxLength={3} autoComplete="off" className={`${SMALL} w-14 uppercase`} />
      </label>
      <label className="flex items-center gap-2">
        {TEXTS.to}
        <input {...register(`versions.${at}.last`)} maxLength={3} autoComplete="off" className={`${SMALL} w-14 uppercase`} />
      </label>
    </span>
  );
}

function Places({ at, places, register }: { at: number; places: Schema["PlaceName"][]; register: UseFormRegister<Fields> }) {
  if (places.length === 0) return <p className="text-quiet">{TEXTS.thereAreNoneInThis}</p>;
  return (
    <div role="group" aria-label={TEXTS.whoHasVersionAt({ at: at + 1 })} className="flex flex-wrap gap-x-4 gap-y-1">
      {places.map((one) => (
        <label key={one.id} className="flex min-h-7 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" {...register(`versions.${at}.places.${one.id}`)} />
          {one.name}
        </label>
      ))}
    </div>
  );
}

/** Who has a version, by name on demand. */
function Whose({ of }: { of: Schema["DealtVersion"] | undefined }) {
  const [shown, setShown] = useState(false);
  if (!of) return null;
  return (
    <div className="flex flex-wrap items-baseline gap-x-3">
      <button type="button" aria-expanded={shown} onClick={() => setShown(!shown)} className="min-h-7 font-semibold text-in underline">
        {COUNTED.students({ count: of.students.length })}
      </button>
      {shown && <span className="text-ink-soft">{of.students.map((one) => one.name).join("; ") || TEXTS.nobody}</span>}
    </div>
  );
}

interface ByHandProps {
  fields: Fields;
  dealt: Schema["DealtVersion"][];
  may: boolean;
  onChange: (hand: Record<string, string>) => void;
}

function ByHand({ fields, dealt, may, onChange }: ByHandProps) {
  const students = dealt.flatMap((version) => version.students.map((one) => ({ ...one, key: version.key })));
  students.sort((a, b) => a.name.localeCompare(b.name));
  return (
    <ul aria-label={TEXTS.dealtByHand} className="grid max-h-72 gap-x-6 gap-y-1 overflow-y-auto sm:grid-cols-2">
      {students.map((student) => (
        <li key={student.id}>
          <label className="flex items-center justify-between gap-2">
            <span className="min-w-0 truncate">{student.name}</span>
            <select
              value={fields.hand[student.id] ?? student.key}
              disabled={!may}
              onChange={(event) => onChange({ ...fields.hand, [student.id]: event.target.value })}
              className={SMALL}
            >
              {fields.versions.map((one: VersionFields, at) => (
                <option key={one.key} value={one.key}>
                  {one.name || TEXTS.versionAt({ at: at + 1 })}
                </option>
              ))}
            </select>
          </label>
        </li>
      ))}
    </ul>
  );
}
