/** Agreeing something for a student, or changing it. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useForm } from "react-hook-form";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { FormDate } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useKeptForm } from "../writing/useBack";
import { KINDS, TEXTS } from "./texts";
import type { Adjustment, Kind } from "./texts";

interface Fields {
  days: string;
  fewer: string;
  percent: string;
  spoken: boolean;
  without: Record<Kind, boolean>;
  first: string;
  last: string;
  reason: string;
}

interface Props {
  enrolment: number;
  today: string;
  kept: Adjustment | null;
  onClose: () => void;
}

const FIELD = "mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal";

// eslint-disable-next-line complexity -- one fallback for each field of a new adjustment
function fieldsOf(kept: Adjustment | null, today: string): Fields {
  return {
    days: kept ? String(kept.extra_days) : "0",
    fewer: kept ? String(kept.fewer_artefacts) : "0",
    percent: kept ? String(kept.percent) : "100",
    spoken: kept?.spoken ?? false,
    without: {
      evidence: kept?.without.includes("evidence") ?? false,
      page: kept?.without.includes("page") ?? false,
      links: kept?.without.includes("links") ?? false,
      log: kept?.without.includes("log") ?? false,
    },
    first: kept?.first ?? today,
    last: kept?.last ?? "",
    reason: kept?.reason ?? "",
  };
}

function bodyOf(fields: Fields, version: number): Schema["AdjustmentIn"] {
  return {
    extra_days: Number(fields.days || 0),
    fewer_artefacts: Number(fields.fewer || 0),
    percent: Number(fields.percent || 100),
    spoken: fields.spoken,
    without: (Object.keys(KINDS) as Kind[]).filter((kind) => fields.without[kind]),
    first: fields.first,
    last: fields.last || null,
    reason: fields.reason,
    version,
  };
}

export function AdjustmentForm({ enrolment, today, kept, onClose }: Props) {
  const form = useForm<Fields>({ defaultValues: fieldsOf(kept, today) });
  const queries = useQueryClient();
  const say = useSay();
  const drop = useKeptForm(`adjustment/${enrolment}/${kept?.id ?? "new"}`, form, kept?.version ?? 0);
  const close = () => {
    drop();
    onClose();
  };
  const save = useMutation({
    mutationFn: (fields: Fields) => {
      const body = bodyOf(fields, kept?.version ?? 0);
      if (kept) return data(client.PUT("/api/adjustments/{adjustment_id}", { params: { path: { adjustment_id: kept.id } }, body }));
      return data(client.POST("/api/students/{enrolment_id}/adjustments", { params: { path: { enrolment_id: enrolment } }, body }));
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["group"] });
      say(TEXTS.agreedItCountsInEvery);
      close();
    },
  });
  return (
    <form
      noValidate
      aria-label={kept ? TEXTS.changeWhatIsAgreed : TEXTS.agree}
      onSubmit={(event) => void form.handleSubmit((fields) => save.mutateAsync(fields).catch(() => undefined))(event)}
      className="flex flex-col gap-4"
    >
      <div className="grid grid-cols-2 gap-3">
        <label className="font-bold">
          {TEXTS.extraSchoolDays}
          <input type="number" min={0} max={60} {...form.register("days")} className={`${FIELD} figures`} />
        </label>
        <label className="font-bold">
          {TEXTS.fewerArtefacts}
          <input type="number" min={0} max={20} {...form.register("fewer")} className={`${FIELD} figures`} />
        </label>
        <label className="col-span-2 font-bold">
          {TEXTS.lengthOfTextsInPercent}
          <input type="number" min={10} max={300} step={5} {...form.register("percent")} className={`${FIELD} figures max-w-32`} />
        </label>
      </div>
      <label className="flex min-h-7 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" {...form.register("spoken")} />
        {TEXTS.spoken}
      </label>
      <fieldset>
        <legend className="font-bold">{TEXTS.excusedFrom}</legend>
        <div className="flex flex-wrap gap-x-4">
          {(Object.keys(KINDS) as Kind[]).map((kind) => (
            <label key={kind} className="flex min-h-8 items-center gap-2">
              <input type="checkbox" className="size-4 accent-ink" {...form.register(`without.${kind}`)} />
              {KINDS[kind]}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-3">
        <FormDate label={TEXTS.from} control={form.control} name="first" />
        <FormDate label={TEXTS.to} hint={TEXTS.mayStayOpen} control={form.control} name="last" />
      </div>
      <label className="font-bold">
        {TEXTS.reason}
        <textarea rows={3} {...form.register("reason")} className={`${FIELD} py-2`} />
      </label>
      {save.error instanceof Problem && <Notice title={save.error.title} fix={save.error.fix} />}
      <div className="flex justify-end gap-2">
        <Button className="min-h-9" onClick={close}>
          {TEXTS.cancel}
        </Button>
        <Button look="main" className="min-h-9" type="submit" disabled={save.isPending}>
          {TEXTS.save}
        </Button>
      </div>
    </form>
  );
}
