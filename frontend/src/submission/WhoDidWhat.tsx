/** Who did what: each of those who hand it in together says their part, and confirms what all say. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { hold } from "../api/hold";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { PegPicture } from "../ui/people/PegPicture";
import { useDraft } from "../writing/useDraft";
import { PARTS } from "./partTexts";

const LOOK_EVERY = 5_000;

interface Props {
  groupId: number;
  portfolio: number;
  handin: number;
}

export function WhoDidWhat({ groupId, portfolio, handin }: Props) {
  const path = { params: { path: { portfolio_id: portfolio, handin_id: handin } } };
  const key = ["group", groupId, "portfolio", portfolio, "parts", handin];
  // What the others of a group do is no change of one's own portfolio: it is asked for while the page is looked at.
  const found = useQuery({ queryKey: key, retry: false, refetchInterval: LOOK_EVERY, queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/handins/{handin_id}/parts", path)) });
  if (!found.data) return null;
  const { parts, mine, version, may_write: may } = found.data;
  return (
    <section aria-labelledby={`parts-${handin}`} className="flex flex-col gap-3 rounded-lg border border-edge bg-paper p-4">
      <div>
        <h3 id={`parts-${handin}`} className="text-base font-bold">
          {PARTS.title}
        </h3>
        <p className="text-ink-soft">{PARTS.hint}</p>
      </div>
      <ul className="flex flex-col gap-2">
        {parts
          .filter((one) => !one.mine || !may)
          .map((one, at) => (
            <Part key={at} one={one} />
          ))}
      </ul>
      {may && <Own key={version} path={path} stored={mine} version={version} keyOf={key} handin={handin} />}
      <Confirm path={path} parts={found.data} keyOf={key} />
    </section>
  );
}

type Path = { params: { path: { portfolio_id: number; handin_id: number } } };

function Part({ one }: { one: Schema["PartShape"] }) {
  return (
    <li className="flex items-start gap-2 text-base">
      <PegPicture picture={one.picture} tint={one.tint} size={28} />
      <span className="min-w-0 flex-1">
        <strong>{one.name}</strong> <Confirmed one={one} />
        <span className={`block break-words whitespace-pre-wrap ${one.text ? "" : "text-quiet"}`}>{one.text || PARTS.nothingYet}</span>
      </span>
    </li>
  );
}

function Confirmed({ one }: { one: Schema["PartShape"] }) {
  if (!one.confirmed) return null;
  return (
    <span className="inline-flex items-center gap-1 text-sm text-accepted">
      <Check aria-hidden size={14} />
      {PARTS.confirmed}
    </span>
  );
}

interface OwnProps {
  path: Path;
  stored: string;
  version: number;
  keyOf: unknown[];
  handin: number;
}

function Own({ path, stored, version, keyOf, handin }: OwnProps) {
  const [text, setText] = useState(stored);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const queries = useQueryClient();
  const changed = text !== stored;
  useDraft(`part/${handin}`, text, version, changed, setText);
  const keep = async () => {
    setBusy(true);
    setProblem(null);
    try {
      await hold(queries, keyOf, await data(client.PUT("/api/portfolios/{portfolio_id}/handins/{handin_id}/parts", { ...path, body: { text, version } })));
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <label className="text-base font-bold">
        {PARTS.mine}
        <textarea value={text} rows={3} onChange={(event) => setText(event.target.value)} className="mt-1 block w-full rounded-md border border-control bg-paper px-3 py-2 text-base font-normal" />
      </label>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      {(changed || problem) && (
        <div>
          <Button big type="submit" disabled={busy}>
            {PARTS.keep}
          </Button>
        </div>
      )}
    </form>
  );
}

function Confirm({ path, parts, keyOf }: { path: Path; parts: Schema["PartsShape"]; keyOf: unknown[] }) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const queries = useQueryClient();
  const own = parts.parts.find((one) => one.mine);
  if (!parts.parts.some((one) => one.text)) return null;
  const confirm = async () => {
    setProblem(null);
    try {
      await hold(queries, keyOf, await data(client.POST("/api/portfolios/{portfolio_id}/handins/{handin_id}/parts/confirm", { ...path, body: { seal: parts.seal } })));
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
      await queries.invalidateQueries({ queryKey: keyOf });
    }
  };
  return (
    <div role="status" className="flex flex-wrap items-center gap-3">
      {own?.confirmed ? (
        <p className="flex min-h-11 items-center gap-1.5 text-base text-accepted">
          <Check aria-hidden size={18} />
          {PARTS.youConfirmed}
        </p>
      ) : (
        <Button big icon={<Check aria-hidden size={18} />} onClick={() => void confirm()}>
          {PARTS.confirm}
        </Button>
      )}
      {problem && <Notice title={problem.title} fix={problem.fix} />}
    </div>
  );
}
