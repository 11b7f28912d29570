/** One pocket's settings; what is typed here is a change of the draft. */
import { lazy, Suspense, useCallback, useEffect, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import { Link } from "react-router";
import type { UseFormRegister } from "react-hook-form";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { may as allowed, useGroup } from "../api/session";
import { Button } from "../ui/Button";
import { FormDate } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import { OnFirstUse } from "../ui/OnFirstUse";
import { DRAFT } from "./draftTexts";
import type { Edits } from "./edits";
import { bodyOf, fieldsOf, newColumn } from "./fields";
import type { Fields } from "./fields";
import { LogColumns } from "./LogColumns";
import { ItemPlace, useLayItem, WITH_DIRECTIONS } from "./ItemPlace";
import { usePutIn } from "./layouts";
import { PocketFiles } from "./PocketFiles";
import { OUTLINE } from "./outlineTexts";
import { standsIn } from "./standIns";
import { PocketPreview } from "./PocketPreview";
import { RichField } from "../writing/rich/RichField";
import { useOfferedPlace } from "../cupboard/places";
import { KINDS } from "../laid/texts";
import { TAKES_WITHIN, TEXTS } from "./texts";
import type { Kind, Laid } from "./texts";
import type { ChangePocket, TemplateDraft } from "./useTemplateDraft";
import { VersionsPart } from "./VersionsPart";

const WholePreview = lazy(() => patiently(() => import("./WholePreview")).then((view) => ({ default: view.WholePreview })));
const LockDialog = lazy(() => patiently(() => import("../live/LockDialog")).then((view) => ({ default: view.LockDialog })));

interface Props {
  /** As it would stand. */
  pocket: Laid;
  /** As it stands; null where the draft adds it. */
  live: Laid | null;
  /** What was typed into it and is not saved. */
  pending: ChangePocket | undefined;
  draft: TemplateDraft;
  groupId: number;
  may: boolean;
  /** It belongs to a section that repeats for units. */
  pattern: boolean;
  template: Schema["TemplateShape"];
  /** Lays an item of the cupboard out as a pocket of its own, in the same section. */
  layOut: (item: number) => void;
  /** An item of the cupboard that was dropped on it in the outline. */
  dropped: number | null;
  onDropped: () => void;
}

const FIELD = "mt-1 block w-full rounded-md border border-control bg-paper px-3 font-normal disabled:border-edge disabled:text-ink";

// eslint-disable-next-line complexity -- one branch for each part that only some kinds of pocket have
export function PocketForm({ pocket, live, pending, draft, groupId, may, pattern, template, layOut, dropped, onDropped }: Props) {
  const [start] = useState<Fields>(() => (pending ? { ...fieldsOf({ ...pocket, ...pending.settings }), hand: pending.settings.hand ?? {} } : fieldsOf(live ?? pocket)));
  const form = useForm<Fields>({ defaultValues: start, disabled: !may });
  const fields = { ...start, ...useWatch({ control: form.control }) } as Fields;
  const version = live?.version ?? 0;
  const body = bodyOf(fields, version);
  // Of what the draft adds nothing stands yet that a change could be told from.
  const as = live ? bodyOf(fieldsOf(live), version) : pending ? null : bodyOf(start, version);
  const text = JSON.stringify(body);
  const changed = text !== JSON.stringify(as);
  const { putPocket } = draft;
  useEffect(() => {
    if (may) putPocket(pocket.id, changed ? (JSON.parse(text) as Schema["PocketIn"]) : null);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what is typed is put down; how it is kept changes with every change
  }, [may, pocket.id, changed, text]);
  const open = draft.seen?.pocket?.id === pocket.id ? draft.seen.pocket : null;
  const choose = (kind: Kind) => {
    // A new log begins with the column that nearly every log has.
    if (kind === "log" && fields.columns.length === 0) form.setValue("columns", [newColumn("date", TEXTS.date2, true)]);
    form.setValue("kind", kind);
  };
  const where = { groupId, pocket: { id: pocket.id, title: fields.title }, draft, form, layOut };
  const layItem = useLayItem(where);
  const withDirections = useCallback((item: number) => layItem(item, WITH_DIRECTIONS), [layItem]);
  useOfferedPlace("pocket", may && !pocket.laid ? { name: fields.title, lay: withDirections, columns: fields.kind === "log" } : null);
  useEffect(() => {
    if (dropped === null) return;
    withDirections(dropped);
    onDropped();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each that is dropped
  }, [dropped]);
  const [previewing, setPreviewing] = useState(false);
  const [whole, setWhole] = useState(false);
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-none max-lg:flex-col">
      <form
        noValidate
        aria-label={TEXTS.settingsOfTitle({ title: pocket.title })}
        onSubmit={(event) => event.preventDefault()}
        className="flex min-h-0 min-w-0 flex-1 flex-col max-lg:flex-none"
      >
        <div className="flex min-h-0 flex-1 scroll-py-3 flex-col gap-4 overflow-y-auto p-5">
          {pocket.laid && <Notice look="info" title={TEXTS.laidHint} />}
          <Button className="self-end xl:hidden" aria-pressed={previewing} onClick={() => setPreviewing(!previewing)}>
            {TEXTS.preview}
          </Button>
          <div className="grid grid-cols-[1fr_190px] gap-3 max-sm:grid-cols-1">
            <label className="font-bold">
              {TEXTS.nameOfThePocket}
              <input {...form.register("title")} autoComplete="off" className={`${FIELD} min-h-9`} />
            </label>
            <FormDate label={TEXTS.openFrom} hint={TEXTS.orAtOnce} control={form.control} name="opens" />
          </div>
          <Kinds value={fields.kind} may={may} onChange={choose} />
          <ItemPlace where={where} into={WITH_DIRECTIONS} may={may && !pocket.laid}>
          <RichField label={TEXTS.directionsStudentsSee} name="directions" control={form.control} may={may} />
          {!pocket.laid && <PocketFiles pocket={pocket} draft={draft} groupId={groupId} may={may} use="directions" title={TEXTS.givenWithTheDirections} hint={live ? TEXTS.picturesAreShownFilesCan : DRAFT.filesHint} />}
          </ItemPlace>
          {fields.kind !== "log" && (
            <label className="font-bold">
              {TEXTS.prompt}{" "}<span className="font-normal text-quiet">{fields.kind === "page" ? TEXTS.overTheText : TEXTS.overEachReflection}</span>
              <input {...form.register("prompt")} autoComplete="off" className={`${FIELD} min-h-9`} />
            </label>
          )}
          {fields.kind === "log" && <LogColumns fields={fields} control={form.control} register={form.register} may={may} groupId={groupId} />}
          <Wanted fields={fields} register={form.register} sets={template.sets} />
          {fields.kind === "page" && (
            <ItemPlace where={where} into={{ words: "starter", file: "directions" }} may={may}>
              <RichField label={TEXTS.starter} hint={TEXTS.whatStandsInThePage} name="starter" control={form.control} may={may} pageIn={groupId} />
            </ItemPlace>
          )}
          {fields.kind === "evidence" && !pattern && !pocket.laid && (
            <ItemPlace where={where} into={{ words: "directions", file: "starter" }} may={may}>
              <PocketFiles pocket={pocket} draft={draft} groupId={groupId} may={may} use="starter" title={TEXTS.starterFiles} hint={TEXTS.studentsBeginFromThemUnchanged} />
            </ItemPlace>
          )}
          {!pattern && !pocket.laid && (
            <VersionsPart
              fields={fields}
              control={form.control}
              register={form.register}
              setValue={form.setValue}
              may={may}
              template={template}
              pocket={pocket}
              draft={draft}
              groupId={groupId}
              dealt={open?.versions ?? []}
              nowhere={open?.nowhere ?? []}
            />
          )}
          {pattern && (
            <label className="flex min-h-7 items-center gap-2">
              <input type="checkbox" className="size-4 accent-ink" {...form.register("eachQuestion")} />
              {TEXTS.itComesOnceForEach}
            </label>
          )}
          <label className="flex min-h-7 items-center gap-2">
            <input type="checkbox" className="size-4 accent-ink" {...form.register("counts")} />
            {TEXTS.itCountsForHowFar}
          </label>
        </div>
      </form>
      {whole && (
        <Suspense>
          <WholePreview groupId={groupId} template={template} edits={draft.edits} first={pocket.id} onClose={() => setWhole(false)} />
        </Suspense>
      )}
      <PocketPreview onWhole={() => setWhole(true)} shown={previewing} fields={standsIn(fields, template.sections.find((one) => one.pockets.some((of) => of.id === pocket.id))?.units[0])} pocket={pocket} chips={open?.chips ?? []} />
    </div>
  );
}

function Kinds({ value, may, onChange }: { value: Kind; may: boolean; onChange: (kind: Kind) => void }) {
  return (
    <fieldset disabled={!may}>
      <legend className="mb-1 font-bold">{TEXTS.kind}</legend>
      <div className="flex flex-wrap gap-2">
        {(Object.keys(KINDS) as Kind[]).map((kind) => {
          const { name, icon: Icon, hint } = KINDS[kind];
          return (
            <label
              key={kind}
              title={hint}
              className={`flex min-h-9 cursor-pointer items-center gap-2 rounded-md border px-3 font-semibold has-focus-visible:outline-3 has-focus-visible:outline-in ${kind === value ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`}
            >
              <input type="radio" name="kind" value={kind} checked={kind === value} onChange={() => onChange(kind)} className="sr-only" />
              <Icon aria-hidden size={16} />
              {name}
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}

/** Who fills a pocket together, and whether each one's own part of it counts. */
function Together({ fields, register, sets }: { fields: Fields; register: UseFormRegister<Fields>; sets: string[] }) {
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
      <label className="flex items-center gap-2">
        {TEXTS.filledBy}
        <select {...register("shared")} className="min-h-9 rounded-md border border-control bg-paper px-2">
          <option value="">{TEXTS.byEachAlone}</option>
          <option value="group">{TEXTS.byEachGroup}</option>
          <option value="period">{TEXTS.byEachPeriod}</option>
          <option value="class">{TEXTS.byTheClass}</option>
        </select>
      </label>
      {fields.shared === "group" && sets.length > 1 && (
        <label className="flex items-center gap-2">
          {TEXTS.groupsOf}
          <select {...register("groupSet")} className="flex min-h-9 items-center rounded-md border border-control bg-paper px-2">
            {[...new Set([...sets, ...(fields.groupSet ? [fields.groupSet] : [])])].map((name, at) => (
              <option key={name} value={at === 0 && fields.groupSet !== name ? "" : name}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      {fields.shared && (
        <label className="flex min-h-7 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" {...register("ownPart")} />
          {fields.kind === "page" ? TEXTS.ownPartCounts : TEXTS.ownThingsCount}
        </label>
      )}
      {fields.shared && <p className="w-full text-ink-soft">{fields.kind === "page" ? TEXTS.togetherMeans : TEXTS.togetherThingsMean}</p>}
    </div>
  );
}

/** What is wanted in it: how many, with what said about each, how long. */
// eslint-disable-next-line complexity -- one branch for each measure that a kind of pocket has
function Wanted({ fields, register, sets }: { fields: Fields; register: UseFormRegister<Fields>; sets: string[] }) {
  const evidence = fields.kind === "evidence";
  const text = fields.kind === "page" || (evidence && fields.reflection);
  const together = fields.kind === "page" && fields.shared !== "";
  return (
    <fieldset className="flex flex-col gap-2 rounded-lg border border-edge bg-paper p-4">
      <legend className="px-1 font-bold">{TEXTS.wanted}</legend>
      {fields.kind === "log" && (
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
          <label className="flex items-center gap-2">
            <input type="number" min={0} max={500} {...register("rows")} disabled={Number(fields.rowsPerWeek) > 0} className="figures min-h-9 w-16 rounded-md border border-control px-2" />
            {TEXTS.rowsOverAll}
          </label>
          <label className="flex items-center gap-2">
            {TEXTS.or}
            <input type="number" min={0} max={20} {...register("rowsPerWeek")} className="figures min-h-9 w-16 rounded-md border border-control px-2" />
            {TEXTS.rowsEachSchoolWeek}
          </label>
        </div>
      )}
      {fields.kind !== "page" && fields.kind !== "log" && (
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
          <label className="flex items-center gap-2">
            <input type="number" min={0} max={50} {...register("artefacts")} className="figures min-h-9 w-16 rounded-md border border-control px-2" />
            {fields.kind === "links" ? TEXTS.linksWithin : TEXTS.artefactsWithin}
          </label>
          {evidence && (
            <label className="flex min-h-7 items-center gap-2">
              <input type="checkbox" className="size-4 accent-ink" {...register("reflection")} />{TEXTS.aReflectionOnEach}
            </label>
          )}
        </div>
      )}
      {evidence && (
        <div role="group" aria-label={TEXTS.kindsOfArtefact} className="flex flex-wrap items-center gap-x-5">
          <span className="text-ink-soft">{TEXTS.takesOnly}</span>
          {(Object.keys(TAKES_WITHIN) as (keyof typeof TAKES_WITHIN)[]).map((kind) => (
            <label key={kind} className="flex min-h-7 items-center gap-2">
              <input type="checkbox" className="size-4 accent-ink" {...register(`takes.${kind}`)} />
              {TAKES_WITHIN[kind]}
            </label>
          ))}
          <span className="text-quiet">{TEXTS.noneChosenAny}</span>
        </div>
      )}
      <Together fields={fields} register={register} sets={sets} />
      {text && !together && (
        <label className="flex min-h-7 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" {...register("spoken")} />
          {TEXTS.mayBeSaidInsteadOf}
        </label>
      )}
      {text && (
        <div className="flex flex-wrap items-center gap-2">
          <label className="flex items-center gap-2">
            {fields.kind === "page" ? TEXTS.theTextHas : TEXTS.eachReflectionHas}
            <select {...register("measure")} className="min-h-9 rounded-md border border-control bg-paper px-2">
              <option value="">{TEXTS.anyLength}</option>
              <option value="sentences">{TEXTS.soManySentences}</option>
              <option value="words">{TEXTS.soManyWords}</option>
            </select>
          </label>
          {fields.measure && (
            <>
              <label className="flex items-center gap-2">
                {TEXTS.from}
                <input type="number" min={1} {...register("least")} className="figures min-h-9 w-18 rounded-md border border-control px-2" />
              </label>
              <label className="flex items-center gap-2">
                {TEXTS.to}
                <input type="number" min={1} {...register("most")} placeholder={TEXTS.open} className="figures min-h-9 w-20 rounded-md border border-control px-2" />
              </label>
            </>
          )}
        </div>
      )}
    </fieldset>
  );
}

type MoreProps = Pick<Props, "pocket" | "pattern" | "groupId"> & {
  edits: Edits;
  onRemoved: () => void;
};

/** Locking for everybody, retiring, bringing back, taking away what nobody used. */
export function More(props: MoreProps) {
  const { pocket, edits, onRemoved } = props;
  if (pocket.retired) return <Button onClick={() => edits.retire(pocket, false)}>{TEXTS.restore}</Button>;
  // What the draft adds is nobody's yet: it can only be taken away again.
  const unused = pocket.id < 0 || (pocket.with_work === 0 && pocket.handins.length === 0);
  return (
    <>
      {pocket.id > 0 && <OfEverybody {...props} />}
      {unused && <Button onClick={() => void edits.remove(pocket).then(onRemoved, () => undefined)}>{TEXTS.remove}</Button>}
    </>
  );
}

/** What is done to a pocket that everybody has. */
function OfEverybody({ pocket, pattern, groupId, edits }: MoreProps) {
  const [locking, setLocking] = useState(false);
  const group = useGroup();
  return (
    <>
      {allowed(group, "set_handin") && !pattern && (
        <Link to={`/g/${groupId}/hand-ins?new=1&pocket=${pocket.id}`} className="inline-flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 text-sm font-semibold hover:border-control hover:bg-ground">
          {OUTLINE.collect}
        </Link>
      )}
      {allowed(group, "lock_pockets") && !pattern && <Button onClick={() => setLocking(true)}>{TEXTS.lock}</Button>}
      {locking && (
        <Suspense>
          <LockDialog what={{ pocket, students: null }} groupId={groupId} locked={false} onClose={() => setLocking(false)} />
        </Suspense>
      )}
      {allowed(group, "keep_cupboard") && <IntoCupboard pocket={pocket} groupId={groupId} />}
      <Button onClick={() => edits.retire(pocket, true)}>{TEXTS.retire}</Button>
    </>
  );
}

const ENTRY = "flex min-h-9 w-full items-center px-4 py-1.5 text-left data-focus:bg-today";

/** As it is saved, it goes into the cupboard: whole, or of a log its columns alone. */
function IntoCupboard({ pocket, groupId }: { pocket: Laid; groupId: number }) {
  const putIn = usePutIn(groupId);
  if (pocket.kind !== "log") return <Button onClick={() => putIn(pocket, false)}>{DRAFT.intoCupboard}</Button>;
  const ways = [
    { words: DRAFT.wholeIntoCupboard, columns: false },
    { words: DRAFT.columnsIntoCupboard, columns: true },
  ];
  return (
    <OnFirstUse
      kind="Actions"
      anchor="bottom end"
      className="mt-1 py-1"
      face={{ className: "inline-flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 text-sm font-semibold hover:border-control hover:bg-ground", content: DRAFT.intoCupboard }}
      items={ways.map(({ words, columns }) => (
        <button key={words} type="button" className={ENTRY} onClick={() => putIn(pocket, columns)}>
          {words}
        </button>
      ))}
    />
  );
}
