/** How a hand-in is marked, how far its markers agree, and a sample of it to look at once more. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { howMarkedQuery, sampleQuery } from "../api/queries";
import { may, useGroup, useGroupId } from "../api/session";
import { useDetail } from "../ui/detail";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { TEXTS, WHY } from "./texts";

type How = Schema["HowMarkedShape"];
type Figures = Schema["AgreementShape"];

export function AgreementView() {
  const groupId = useGroupId();
  const handin = Number(useParams().handin);
  const found = useQuery(howMarkedQuery(groupId, handin));
  useDetail(found.data?.handin.title);
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return (
    <article className="flex min-h-0 w-full flex-1 flex-col gap-6 overflow-y-auto p-6 max-sm:p-4">
      <div className="mx-auto flex w-full max-w-5xl flex-col gap-6">
        <header>
          <Link to={`/g/${groupId}/hand-ins`} className="inline-flex min-h-8 items-center gap-2 font-semibold text-in">
            <ArrowLeft aria-hidden size={16} />
            {TEXTS.back}
          </Link>
          <h1 className="text-2xl break-words">{TEXTS.title({ title: found.data.handin.title })}</h1>
        </header>
        <Rules how={found.data} groupId={groupId} />
        <Table how={found.data} />
        <Sample groupId={groupId} handin={handin} />
      </div>
    </article>
  );
}

function Rules({ how, groupId }: { how: How; groupId: number }) {
  const queries = useQueryClient();
  const say = useSay();
  const sets = may(useGroup(), "set_handin");
  /** As it was just ticked, until the server has it too. */
  const [ticked, setTicked] = useState<{ two: boolean; blind: boolean } | null>(null);
  const change = useMutation({
    mutationFn: (to: { two: boolean; blind: boolean }) =>
      data(client.PUT("/api/groups/{group_id}/handins/{handin_id}/marking", { params: { path: { group_id: groupId, handin_id: how.handin.id } }, body: { ...to, version: how.version } })),
    onSuccess: async () => {
      say(TEXTS.saved);
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    },
    onSettled: () => setTicked(null),
  });
  const now = ticked ?? how;
  const box = (name: "two" | "blind", label: string, hint: string) => (
    // eslint-disable-next-line jsx-a11y/label-has-associated-control -- its words are given to it
    <label htmlFor={`marked-${name}`} className="flex items-start gap-3">
      <input id={`marked-${name}`} type="checkbox" disabled={!sets} checked={now[name]} onChange={(event) => {
          const to = { two: now.two, blind: now.blind, [name]: event.target.checked };
          setTicked(to);
          change.mutate(to);
        }} className="mt-1 size-5 accent-ink" />
      <span className="min-w-0">
        <b>{label}</b>
        <span className="block text-ink-soft">{hint}</span>
      </span>
    </label>
  );
  return (
    <section aria-labelledby="rules" className="flex flex-col gap-3 text-base">
      <h2 id="rules" className="text-lg">
        {TEXTS.rules}
      </h2>
      {box("two", TEXTS.two, TEXTS.twoHint)}
      {box("blind", TEXTS.blind, TEXTS.blindHint)}
      {change.error instanceof Problem && <Notice title={change.error.title} fix={change.error.fix} />}
    </section>
  );
}

const CELL = "figures px-3 py-2 text-right whitespace-nowrap";

function Table({ how }: { how: How }) {
  const rows: (Figures & { title: string })[] = [...how.criteria, ...(how.whole ? [{ ...how.whole, title: TEXTS.whole }] : [])];
  const any = rows.some((one) => one.pairs > 0);
  const heads = [TEXTS.pairs, TEXTS.exact, TEXTS.adjacent, TEXTS.kappa, TEXTS.linear, TEXTS.quadratic, TEXTS.alpha, TEXTS.interval];
  return (
    <section aria-labelledby="agreement" className="flex flex-col gap-2 text-base">
      <h2 id="agreement" className="text-lg">
        {TEXTS.agreement}
      </h2>
      {!any && <p>{TEXTS.none}</p>}
      {any && (
        <>
          <p>{TEXTS.markers({ markers: how.markers.join(", ") })}</p>
          {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reached by keys */}
          <div role="region" aria-label={TEXTS.agreement} tabIndex={0} className="overflow-x-auto rounded-lg border border-edge bg-paper">
            <table className="w-full border-collapse">
              <thead>
                <tr className="border-b border-edge text-sm">
                  <th scope="col" className="px-3 py-2 text-left">
                    {TEXTS.criterion}
                  </th>
                  {heads.map((one) => (
                    <th key={one} scope="col" className="max-w-28 px-3 py-2 text-right align-bottom">
                      {one}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {rows.map((one, at) => (
                  <Row key={at} one={one} />
                ))}
              </tbody>
            </table>
          </div>
          <p className="max-w-3xl text-sm text-ink-soft">{TEXTS.what}</p>
        </>
      )}
    </section>
  );
}

const TOO_FEW = 10;

function Row({ one }: { one: Figures & { title: string } }) {
  const share = (of: number | null) => (of === null ? TEXTS.nothing : TEXTS.share({ share: Math.round(of * 100) }));
  const figure = (of: number | null) => (of === null ? TEXTS.nothing : TEXTS.figure({ figure: of }));
  return (
    <tr className="border-b border-line last:border-0">
      <th scope="row" className="px-3 py-2 text-left break-words">
        {one.title}
      </th>
      <td className={CELL}>{one.pairs}</td>
      <td className={CELL}>{share(one.exact)}</td>
      <td className={CELL}>{share(one.adjacent)}</td>
      {one.pairs < TOO_FEW ? (
        <td colSpan={5} className="px-3 py-2 text-right text-quiet">
          {TEXTS.few}
        </td>
      ) : (
        <>
          <td className={CELL}>{figure(one.kappa)}</td>
          <td className={CELL}>{figure(one.linear)}</td>
          <td className={CELL}>{figure(one.quadratic)}</td>
          <td className={CELL}>{figure(one.alpha)}</td>
          <td className={CELL}>{one.low === null || one.high === null ? TEXTS.nothing : TEXTS.intervalOf({ low: one.low, high: one.high })}</td>
        </>
      )}
    </tr>
  );
}

const SIZES = [5, 8, 12, 20, 40];

function Sample({ groupId, handin }: { groupId: number; handin: number }) {
  const [size, setSize] = useState(8);
  const [seed, setSeed] = useState("1");
  const found = useQuery({ ...sampleQuery(groupId, handin, size, Number(seed) || 1), placeholderData: (before) => before });
  const drawn = found.data ?? [];
  const field = "ml-2 min-h-9 rounded-md border border-control bg-paper px-2 font-normal";
  return (
    <section aria-labelledby="sample" className="flex flex-col gap-2 text-base">
      <h2 id="sample" className="text-lg">
        {TEXTS.sample}
      </h2>
      <p className="max-w-3xl text-ink-soft">{TEXTS.sampleHint}</p>
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <label className="font-bold">
          {TEXTS.size}
          <select value={size} onChange={(event) => setSize(Number(event.target.value))} className={field}>
            {SIZES.map((one) => (
              <option key={one} value={one}>
                {one}
              </option>
            ))}
          </select>
        </label>
        <label className="font-bold">
          {TEXTS.seed}
          <input value={seed} inputMode="numeric" maxLength={6} onChange={(event) => setSeed(event.target.value.replace(/\D/g, ""))} className={`${field} figures w-24`} />
        </label>
      </div>
      {found.isSuccess && drawn.length === 0 && <p>{TEXTS.noSample}</p>}
      {drawn[0] && (
        <Link to={`/g/${groupId}/pile/${drawn[0].submission}?sample=${handin}.${size}.${Number(seed) || 1}`} className="inline-flex min-h-9 items-center self-start font-semibold text-in underline">
          {TEXTS.lookThrough}
        </Link>
      )}
      {drawn.length > 0 && (
        <table className="w-full border-collapse overflow-hidden rounded-lg border border-edge bg-paper">
          <thead>
            <tr className="border-b border-edge text-left text-sm">
              {[TEXTS.student, TEXTS.score, TEXTS.by, TEXTS.why].map((one) => (
                <th key={one} scope="col" className="px-3 py-2">
                  {one}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {drawn.map((one) => (
              <tr key={one.submission} className="border-b border-line last:border-0">
                <td className="px-3 py-1.5">
                  <Link to={`/g/${groupId}/pile/${one.submission}?sample=${handin}.${size}.${Number(seed) || 1}`} aria-label={TEXTS.open({ student: one.student })} className="inline-flex min-h-8 items-center font-semibold text-in underline">
                    {one.student}
                  </Link>
                </td>
                <td className="figures px-3 py-1.5">{TEXTS.scoreOf({ score: one.score, points: one.points })}</td>
                <td className="px-3 py-1.5">{one.by}</td>
                <td className="px-3 py-1.5 text-ink-soft">{WHY[one.why]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
