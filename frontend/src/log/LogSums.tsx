/** A log added up: totals, each choice, and the weeks as a small chart with the target's line. */
import type { Schema } from "../api/client";
import { shortDay } from "../ui/dates";
import { amount, sumOf } from "./cells";
import type { Log } from "./cells";
import { TEXTS } from "./texts";
import { COUNTED } from "../ui/texts";

export function LogSums({ log }: { log: Log }) {
  if (log.total.rows === 0 && !log.target) return null;
  const columns = log.columns ?? [];
  const numbers = columns.filter((one) => one.type === "number");
  const choices = columns.filter((one) => one.type === "choice");
  return (
    <section aria-label={TEXTS.addedUp} className="grid gap-4 rounded-lg border border-edge bg-paper p-4 xl:grid-cols-2">
      <div className="flex flex-col gap-3">
        <dl className="flex flex-wrap gap-x-6 gap-y-2">
          <Total name={TEXTS.rowsThatCount} value={String(log.total.rows)} />
          {numbers.map((one) => (
            <Total key={one.key} name={one.title} value={`${amount(sumOf(log.total, one.key))}${one.unit ? ` ${one.unit}` : ""}`} />
          ))}
        </dl>
        {choices.map((column) => (
          <OfChoice key={column.key} title={column.title} lines={log.of_choices.filter((one) => one.column === column.key && one.rows > 0)} log={log} />
        ))}
      </div>
      <Weeks log={log} />
    </section>
  );
}

function Total({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-sm text-quiet">{name}</dt>
      <dd className="figures text-xl font-bold">{value}</dd>
    </div>
  );
}

function OfChoice({ title, lines, log }: { title: string; lines: Schema["LogOfChoice"][]; log: Log }) {
  if (lines.length === 0) return null;
  const numbers = (log.columns ?? []).filter((one) => one.type === "number");
  return (
    <table className="w-full max-w-md text-base">
      <caption className="text-left font-bold">{title}</caption>
      <tbody>
        {lines.map((one) => (
          <tr key={one.choice} className="border-b border-line last:border-0">
            <th scope="row" className="py-1 pr-4 text-left font-normal break-words">
              {one.choice}
            </th>
            <td className="figures py-1 pr-4 text-right whitespace-nowrap text-ink-soft">{COUNTED.rows({ count: one.rows })}</td>
            {numbers.map((of) => (
              <td key={of.key} className="figures py-1 pl-2 text-right whitespace-nowrap">
                {amount(sumOf(one, of.key))} {of.unit}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const WIDTH = 360;
const HEIGHT = 130;
const FOOT = 18;

/** Bars of the weeks; over all, a line that climbs towards the target. */
// eslint-disable-next-line complexity -- one chart in three kinds: climbing, weekly, without a target; the words and shapes of each stand side by side
function Weeks({ log }: { log: Log }) {
  const columns = log.columns ?? [];
  const target = log.target ?? null;
  const key = target ? target.column : (columns.find((one) => one.type === "number")?.key ?? "");
  const column = columns.find((one) => one.key === key);
  const unit = column?.unit ?? (key ? "" : TEXTS.unitRows);
  if (log.weeks.length === 0) return target ? <p className="text-ink-soft">{TEXTS.theTargetIsAmountUnit({ amount: amount(target.amount), unit })}</p> : null;
  const climbing = target !== null && !target.each_week;
  const values = climbing ? log.line.map((one) => one.value) : log.weeks.map((one) => Number(sumOf(one, key)));
  const goal = target ? Number(target.amount) : 0;
  const top = Math.max(goal, ...values, 1) * 1.08;
  const step = WIDTH / log.weeks.length;
  const y = (value: number) => (HEIGHT - FOOT) * (1 - Math.max(value, 0) / top);
  const name = column?.title ?? TEXTS.rows;
  const said = target
    ? TEXTS.nameValuesOfAmountUnit({ name, values: amount(values.at(-1) ?? 0), amount: amount(target.amount), unit, each_weekIs: target.each_week })
    : TEXTS.nameWeekByWeek({ name });
  const every = Math.ceil(log.weeks.length / 6);
  return (
    <figure className="max-w-lg min-w-0">
      <figcaption className="mb-1 font-bold">
        {name} {climbing ? TEXTS.soFar : TEXTS.eachWeek}
        {target && <span className="figures font-normal text-ink-soft">{" "}{TEXTS.targetAmountUnit({ amount: amount(target.amount), unit, each_weekIs: target.each_week })}</span>}
      </figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={said} className="w-full">
        {climbing ? (
          <polyline
            fill="none"
            stroke="var(--color-in)"
            strokeWidth={3}
            strokeLinejoin="round"
            points={values.map((value, at) => `${(at + 0.5) * step},${y(value)}`).join(" ")}
          />
        ) : null}
        {values.map((value, at) =>
          climbing ? (
            <circle key={at} cx={(at + 0.5) * step} cy={y(value)} r={3.5} fill="var(--color-in)" />
          ) : (
            <rect key={at} x={at * step + step * 0.15} y={y(value)} width={step * 0.7} height={HEIGHT - FOOT - y(value)} fill={!target || value >= goal ? "var(--color-accepted)" : "var(--color-in)"} />
          ),
        )}
        {target && <line x1={0} x2={WIDTH} y1={y(goal)} y2={y(goal)} stroke="var(--color-copper)" strokeWidth={2} strokeDasharray="6 4" />}
        <line x1={0} x2={WIDTH} y1={HEIGHT - FOOT} y2={HEIGHT - FOOT} stroke="var(--color-control)" />
        {log.weeks.map((week, at) =>
          at % every === 0 ? (
            <text key={week.monday} x={(at + 0.5) * step} y={HEIGHT - 4} textAnchor={at === 0 && step < 40 ? "start" : "middle"} fontSize={11} fill="var(--color-quiet)">
              {shortDay(week.monday)}
            </text>
          ) : null,
        )}
      </svg>
    </figure>
  );
}
