/** One pocket's settings; what saving them would mean stands beside the button that does it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import { Link } from "react-router";
import type { UseFormRegister } from "react-hook-form";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { may as allowed, useGroup } from "../api/session";
import { Button } from "../ui/Button";
import { FormDate } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import { SaveBar } from "../ui/SaveBar";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { useBack } from "../writing/useBack";
import { useDraft } from "../writing/useDraft";
import type { Edits } from "./edits";
import { bodyOf, fieldsOf, newColumn } from "./fields";
import type { Fields } from "./fields";
import { LogColumns } from "./LogColumns";
import { PocketFiles } from "./PocketFiles";
import { OUTLINE } from "./outlineTexts";
import { standsIn } from "./standIns";
import { PocketPreview } from "./PocketPreview";
import { RichField } from "../writing/rich/RichField";
import { KINDS } from "../laid/texts";
import { TAKES_WITHIN, TEXTS } from "./texts";
import type { Kind, Laid } from "./texts";
import { VersionsPart } from "./VersionsPart";

const LockDialog = lazy(() => patiently(() => import("../live/LockDialog")).then((view) => ({ default: view.LockDialog })));

interface Props {
  pocket: Laid;
  groupId: number;
  may: boolean;
  /** It belongs to a section that repeats for units. */
  pattern: boolean;
  template: Schema["TemplateShape"];
  edits: Edits;
}

const FIELD = "mt-1 block w-full rounded-md border border-control bg-paper px-3 font-normal disabled:border-edge disabled:text-ink";

// eslint-disable-next-line complexity -- one branch for each part that only some kinds of pocket have
export function PocketForm({ pocket, groupId, may, pattern, template, edits }: Props) {
  const form = useForm<Fields>({ defaultValues: fieldsOf(pocket), disabled: !may });
  const fields = { ...fieldsOf(pocket), ...useWatch({ control: form.control }) } as Fields;
  const body = bodyOf(fields, pocket.version);
  const settled = useSettled(body);
  const changed = JSON.stringify(body) !== JSON.stringify(bodyOf(fieldsOf(pocket), pocket.version));
  const queries = useQueryClient();
  const say = useSay();
  const path = { params: { path: { group_id: groupId, pocket_id: pocket.id } } };
  const drop = useDraft(`pocket/${pocket.id}`, fields, pocket.version, may && changed, useBack(form, pocket.version));
  const impact = useQuery({
    queryKey: ["group", groupId, "impact", pocket.id, settled],
    enabled: may,
    placeholderData: (old: Schema["ImpactShape"] | undefined) => old,
    queryFn: () => data(client.POST("/api/groups/{group_id}/template/pockets/{pocket_id}/preview", { ...path, body: settled })),
  });
  const save = useMutation({
    mutationFn: (filled: Schema["PocketIn"]) => data(client.PUT("/api/groups/{group_id}/template/pockets/{pocket_id}", { ...path, body: filled })),
    onSuccess: async (done, sent) => {
      drop();
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      // Undoing is saving the settings as they were, over the version just made.
      const before = bodyOf(fieldsOf(pocket), done.version);
      const undone = sent.version === pocket.version ? () => save.mutate(before) : undefined;
      say(TEXTS.titleIsSavedInPortfolios({ title: sent.title, students: done.impact.students }), undone);
    },
  });
  const choose = (kind: Kind) => {
    // A new log begins with the column that nearly every log has.
    if (kind === "log" && fields.columns.length === 0) form.setValue("columns", [newColumn("date", TEXTS.date2, true)]);
    form.setValue("kind", kind);
  };
  const [previewing, setPreviewing] = useState(false);
  // What it means is said of what stands in the form now, never of what stood there a moment ago.
  const current = impact.data && !impact.isPlaceholderData && JSON.stringify(settled) === JSON.stringify(body);
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-none max-lg:flex-col">
      <form
        noValidate
        aria-label={TEXTS.settingsOfTitle({ title: pocket.title })}
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate(body);
        }}
        className="flex min-h-0 min-w-0 flex-1 flex-col max-lg:flex-none"
      >
        <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
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
          <RichField label={TEXTS.directionsStudentsSee} name="directions" control={form.control} may={may} />
          {!pocket.laid && <PocketFiles pocket={pocket} groupId={groupId} may={may} use="directions" title={TEXTS.givenWithTheDirections} hint={TEXTS.picturesAreShownFilesCan} />}
          {fields.kind !== "log" && (
            <label className="font-bold">
              {TEXTS.prompt}{" "}<span className="font-normal text-quiet">{fields.kind === "page" ? TEXTS.overTheText : TEXTS.overEachReflection}</span>
              <input {...form.register("prompt")} autoComplete="off" className={`${FIELD} min-h-9`} />
            </label>
          )}
          {fields.kind === "log" && <LogColumns fields={fields} control={form.control} register={form.register} may={may} groupId={groupId} />}
          <Wanted fields={fields} register={form.register} />
          {fields.kind === "page" && (
            <label className="font-bold">
              {TEXTS.starter}{" "}<span className="font-normal text-quiet">{TEXTS.whatStandsInThePage}</span>
              <textarea rows={2} {...form.register("starter")} className={`${FIELD} py-2`} />
            </label>
          )}
          {fields.kind === "evidence" && !pattern && !pocket.laid && (
            <PocketFiles pocket={pocket} groupId={groupId} may={may} use="starter" title={TEXTS.starterFiles} hint={TEXTS.studentsBeginFromThemUnchanged} />
          )}
          {!pattern && !pocket.laid && (
            <VersionsPart
              fields={fields}
              control={form.control}
              register={form.register}
              setValue={form.setValue}
              may={may}
              template={template}
              dealt={impact.data?.versions ?? []}
              nowhere={impact.data?.nowhere ?? []}
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
        {may && (
          <SaveBar
            changed={changed}
            means={current ? <Means impact={impact.data} /> : undefined}
            wrong={changed ? impact.error : null}
            refused={save.error}
            saving={save.isPending}
            onAsWas={() => {
              form.reset(fieldsOf(pocket));
              save.reset();
            }}
            words={TEXTS}
          >
            <More pocket={pocket} pattern={pattern} groupId={groupId} edits={edits} />
          </SaveBar>
        )}
      </form>
      <PocketPreview shown={previewing} fields={standsIn(fields, template.sections.find((one) => one.pockets.some((of) => of.id === pocket.id))?.units[0])} pocket={pocket} chips={impact.data?.chips ?? []} />
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

/** What is wanted in it: how many, with what said about each, how long. */
// eslint-disable-next-line complexity -- one branch for each measure that a kind of pocket has
function Wanted({ fields, register }: { fields: Fields; register: UseFormRegister<Fields> }) {
  const evidence = fields.kind === "evidence";
  const text = fields.kind === "page" || (evidence && fields.reflection);
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
      {text && (
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

/** What saving now would mean. */
function Means({ impact }: { impact: Schema["ImpactShape"] }) {
  const [shown, setShown] = useState(false);
  const more = impact.units > 0 ? TEXTS.asksThingsMoreOf({ units: impact.units }) : impact.units < 0 ? TEXTS.asksThingsFewerOf({ units: -impact.units }) : TEXTS.asksSomethingElseOf;
  const names = [...impact.to_open, ...impact.to_filled];
  return (
    <div role="status" aria-label={TEXTS.whatSavingMeans} className="rounded-md border-l-4 border-in bg-in-soft p-3">
      <p>
        <strong>{TEXTS.savingThisNow}</strong>{" "}{TEXTS.reachesPortfoliosAtOnceNothing({ students: impact.students, more, reached: impact.reached, reachedIs: impact.reached > 0, opened: impact.opened, openedIs: impact.opened > 0, filled: impact.filled, filledIs: impact.filled > 0 })}
      </p>
      {names.length > 0 && (
        <>
          <Button className="mt-2" aria-expanded={shown} onClick={() => setShown(!shown)}>
            {shown ? TEXTS.hideTheNames : TEXTS.seeTheCount({ count: names.length })}
          </Button>
          {shown && <p className="mt-2 max-h-24 overflow-y-auto">{names.join("; ")}</p>}
        </>
      )}
    </div>
  );
}

/** Locking for everybody, retiring, bringing back, taking away what nobody used. */
function More({ pocket, pattern, groupId, edits }: Pick<Props, "pocket" | "pattern" | "groupId" | "edits">) {
  const [locking, setLocking] = useState(false);
  const group = useGroup();
  const mayLock = allowed(group, "lock_pockets");
  const mayCollect = allowed(group, "set_handin");
  if (pocket.retired) return <Button onClick={() => edits.retire(pocket, false)}>{TEXTS.restore}</Button>;
  const unused = pocket.with_work === 0 && pocket.handins.length === 0;
  return (
    <>
      {mayCollect && !pattern && (
        <Link to={`/g/${groupId}/hand-ins?new=1&pocket=${pocket.id}`} className="inline-flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 text-sm font-semibold hover:border-control hover:bg-ground">
          {OUTLINE.collect}
        </Link>
      )}
      {mayLock && !pattern && <Button onClick={() => setLocking(true)}>{TEXTS.lock}</Button>}
      {locking && (
        <Suspense>
          <LockDialog what={{ pocket, students: null }} groupId={groupId} locked={false} onClose={() => setLocking(false)} />
        </Suspense>
      )}
      <Button onClick={() => edits.retire(pocket, true)}>{TEXTS.retire}</Button>
      {unused && <Button onClick={() => edits.remove(pocket)}>{TEXTS.remove}</Button>}
    </>
  );
}
