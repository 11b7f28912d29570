/** The school's late rule: what a school day late takes from a score. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { hold } from "../api/hold";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { LATE } from "./lateTexts";

type Rule = Schema["LateRuleShape"];

const KEY = ["late-rule"];
const EARNED = 20;
const DAYS = 3;

export function LatePart() {
  const rule = useQuery({ queryKey: KEY, queryFn: () => data(client.GET("/api/late-rule")) });
  if (rule.isPending) return <Waiting />;
  if (rule.isError) return <Failed error={rule.error} again={() => void rule.refetch()} />;
  return <Form key={rule.data.version} rule={rule.data} />;
}

/** Per cent as they are typed; a problem where it is no number. */
function percent(typed: string): number {
  const number = Number(typed.trim().replace(",", "."));
  if (typed.trim() && Number.isFinite(number)) return number;
  throw new Problem({ title: LATE.notANumber({ typed }), fix: LATE.giveANumber }, 422);
}

function Form({ rule }: { rule: Rule }) {
  const queries = useQueryClient();
  const say = useSay();
  const [on, setOn] = useState(rule.per_day !== null);
  const [perDay, setPerDay] = useState(String(rule.per_day ?? 5));
  const [floor, setFloor] = useState(String(rule.floor || 50));
  const save = useMutation({
    mutationFn: () => data(client.PUT("/api/late-rule", { body: { per_day: on ? percent(perDay) : null, floor: on ? percent(floor) : 0, version: rule.version } })),
    onSuccess: async (now) => {
      await hold(queries, KEY, now);
      say(now.per_day === null ? LATE.ended : LATE.saved);
    },
  });
  return (
    <section aria-labelledby="late" className="flex max-w-3xl flex-col gap-4 p-5">
      <h1 id="late" className="text-xl">
        {LATE.title}
      </h1>
      <p className="text-ink-soft">{LATE.hint}</p>
      <label className="flex min-h-9 items-center gap-2 font-bold">
        <input type="checkbox" className="size-4 accent-ink" checked={on} onChange={(event) => setOn(event.target.checked)} />
        {LATE.takes}
      </label>
      {on ? (
        <>
          <Percent label={LATE.perDay} value={perDay} onChange={setPerDay} />
          <Percent label={LATE.floor} value={floor} onChange={setFloor} />
          <Example perDay={perDay} floor={floor} />
        </>
      ) : (
        <p>{LATE.none}</p>
      )}
      {save.error instanceof Problem && <Notice title={save.error.title} fix={save.error.fix} />}
      <div className="flex items-center gap-3">
        <Button look="main" big disabled={save.isPending} onClick={() => save.mutate()}>
          {LATE.save}
        </Button>
        {rule.changed_at && <span className="text-quiet">{LATE.by({ by: rule.by, at: moment(rule.changed_at) })}</span>}
      </div>
    </section>
  );
}

function Percent({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  return (
    <label className="flex flex-wrap items-center gap-2">
      <span className="w-52 font-bold">{label}</span>
      <input value={value} inputMode="decimal" autoComplete="off" className="figures min-h-9 w-20 rounded-md border border-control bg-paper px-2 text-right" onChange={(event) => onChange(event.target.value)} />
      <span>{LATE.percent}</span>
    </label>
  );
}

/** What the typed rule would leave of a score; nothing as long as it is no rule. */
function Example({ perDay, floor }: { perDay: string; floor: string }) {
  const [takes, leaves] = [perDay, floor].map((one) => Number(one.trim().replace(",", ".") || "x"));
  if (takes === undefined || leaves === undefined || !(takes > 0 && takes <= 100 && leaves >= 0 && leaves <= 100)) return null;
  const left = EARNED * Math.max(1 - (takes * DAYS) / 100, leaves / 100, 0);
  return <p className="figures rounded-md bg-today px-3 py-2">{LATE.example({ earned: EARNED, days: DAYS, left: Math.round(left * 10) / 10 })}</p>;
}
