/** Before a pocket is chosen: what needs the student next, what came back, and what is new. */
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { ReactNode } from "react";
import type { Schema } from "../api/client";
import { feedbackQuery, noticesQuery } from "../api/queries";
import { newsWords } from "../app/newsWords";
import { Coat } from "../ui/Coat";
import { dayOf, moment } from "../ui/dates";
import { STATUS } from "../ui/words";
import { stateWords } from "./stateWords";
import { NEXT_UP, TEXTS } from "./texts";

type Pocket = Schema["PocketLine"];

/** Of each kind so many: what is left stands at the side, under Feedback and under the bell. */
const MOST = 3;

/** What came back goes before what is overdue, that before what is due, the earlier first. */
function urgency(one: Pocket): string {
  return `${one.status === "sent_back" ? 0 : one.overdue ? 1 : 2}${one.due ?? "9"}`;
}

function waitingOf(pockets: Pocket[]): Pocket[] {
  return pockets.filter((one) => one.due !== null || one.status === "sent_back").sort((a, b) => urgency(a).localeCompare(urgency(b)));
}

export function NextUp({ portfolio, base }: { portfolio: Schema["PortfolioShape"]; base: string }) {
  const [first, ...rest] = waitingOf(portfolio.pockets);
  if (!portfolio.mine) return <Choose />;
  return (
    <div className="mx-auto flex w-full max-w-4xl flex-col gap-8 p-6">
      <section aria-labelledby="next-up">
        <h1 id="next-up" className="text-2xl">
          {first ? TEXTS.nextUp : NEXT_UP.nothing}
        </h1>
        {first ? <First pocket={first} base={base} /> : <p className="mt-2 text-base text-ink-soft">{TEXTS.chooseHint}</p>}
        {rest.length > 0 && (
          <ul aria-label={NEXT_UP.after} className="mt-3 grid gap-3 lg:grid-cols-2">
            {rest.slice(0, MOST - 1).map((one) => (
              <li key={one.id}>
                <Link to={`${base}/${one.id}`} className="flex h-full min-h-14 items-center gap-3 rounded-lg border border-edge bg-paper px-4 py-3 hover:border-control">
                  <Named pocket={one} size={28} />
                </Link>
              </li>
            ))}
          </ul>
        )}
      </section>
      <div className="grid items-start gap-8 lg:grid-cols-2">
        <CameBack groupId={portfolio.group.id} portfolio={portfolio.id} />
        <New />
      </div>
    </div>
  );
}

function Choose() {
  return (
    <div className="mx-auto mt-16 flex max-w-md flex-col items-center gap-3 px-6 text-center">
      <h1 className="text-2xl">{TEXTS.choose}</h1>
      <p className="text-base text-ink-soft">{TEXTS.chooseHint}</p>
    </div>
  );
}

function Named({ pocket, size }: { pocket: Pocket; size: number }) {
  const state = stateWords(pocket);
  return (
    <>
      <Coat state={{ ...pocket, late: false }} size={size} />
      <span className="min-w-0 flex-1 text-base">
        <span className="block font-bold break-words">{pocket.title}</span>
        {state && <span className={pocket.overdue ? "text-overdue" : pocket.status === "sent_back" ? "text-copper" : "text-ink-soft"}>{state}</span>}
      </span>
    </>
  );
}

function First({ pocket, base }: { pocket: Pocket; base: string }) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-4 rounded-lg border border-edge bg-paper p-5">
      <Named pocket={pocket} size={56} />
      <Link to={`${base}/${pocket.id}`} className="inline-flex min-h-11 items-center rounded-md bg-copper px-5 text-base font-semibold text-paper hover:bg-copper-deep">
        {TEXTS.openTitle({ title: pocket.title })}
      </Link>
    </div>
  );
}

function Lines({ title, none, children }: { title: string; none: string | false; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="text-lg">{title}</h2>
      {none ? <p className="mt-1 text-base text-ink-soft">{none}</p> : <ul className="mt-2 divide-y divide-line rounded-lg border border-edge bg-paper">{children}</ul>}
    </section>
  );
}

const LINE = "flex min-h-14 items-center gap-3 px-4 py-2 hover:bg-ground";

function CameBack({ groupId, portfolio }: { groupId: number; portfolio: number }) {
  const lines = useQuery(feedbackQuery(groupId, portfolio)).data;
  if (!lines) return null;
  return (
    <Lines title={NEXT_UP.cameBack} none={lines.length === 0 && NEXT_UP.nothingBack}>
      {lines.slice(0, MOST).map((one) => (
        <li key={one.id}>
          <Link to={`/g/${groupId}/portfolio/${portfolio}/submission/${one.submission}`} className={LINE}>
            <Coat state={{ status: one.kind }} size={28} />
            <span className="min-w-0 text-base">
              <span className="block font-semibold break-words">{one.handin.title}</span>
              <span className="text-ink-soft">{NEXT_UP.backOn({ status: STATUS[one.kind], day: dayOf(one.at), by: one.by })}</span>
            </span>
          </Link>
        </li>
      ))}
    </Lines>
  );
}

function New() {
  const lines = useQuery(noticesQuery).data?.lines;
  if (!lines) return null;
  return (
    <Lines title={NEXT_UP.isNew} none={lines.length === 0 && NEXT_UP.nothingNew}>
      {lines.slice(0, MOST).map((one) => (
        <li key={one.id}>
          <Link to={one.path} className={LINE}>
            <span className="min-w-0 text-base">
              <span className="block break-words">
                {one.title && <strong>{one.title} </strong>}
                {newsWords(one)}
              </span>
              <span className="text-ink-soft">{moment(one.at)}</span>
            </span>
          </Link>
        </li>
      ))}
    </Lines>
  );
}
