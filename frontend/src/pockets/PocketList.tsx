/** The pockets of a portfolio under the names of their sections, each with how far it is. */
import { ChevronRight } from "lucide-react";
import { useState } from "react";
import { NavLink } from "react-router";
import type { Schema } from "../api/client";
import { useItemDrop } from "../cupboard/dragging";
import { useTake } from "../cupboard/taking";
import { Coat } from "../ui/Coat";
import { PegPicture } from "../ui/people/PegPicture";
import { stateWords } from "./stateWords";
import { TEXTS } from "./texts";

type Portfolio = Schema["PortfolioShape"];
type Pocket = Schema["PocketLine"];
type Section = Schema["SectionLine"];

const LONG = 12;
/** From so many pockets on, only the sections open by themselves in which something is to be done. */

/** Which sections stand open: all of a short portfolio, of a long one those with work to hand in, else the first unfinished one. */
function opening({ sections, pockets }: Portfolio): ReadonlySet<number> {
  if (pockets.length <= LONG) return new Set(sections.map((one) => one.id));
  const waiting = sections.filter((one) => one.waits || pockets.some((of) => of.section_id === one.id && of.status === "sent_back"));
  const unfinished = sections.find((one) => one.met < one.wanted) ?? sections[0];
  return new Set((waiting.length > 0 ? waiting : unfinished ? [unfinished] : []).map((one) => one.id));
}

interface Props {
  portfolio: Portfolio;
  base: string;
  chosen: number | null;
  /** Only pockets with work since this moment. */
  only: string | null;
}

export function PocketList({ portfolio, base, chosen, only }: Props) {
  const [first] = useState(() => opening(portfolio));
  const [turned, setTurned] = useState<ReadonlyMap<number, boolean>>(new Map());
  const shown = portfolio.pockets.filter((one) => only === null || (one.last_work !== null && one.last_work > only));
  const parts = portfolio.sections.map((section) => ({ section, pockets: shown.filter((one) => one.section_id === section.id) })).filter((one) => one.pockets.length > 0);
  const isOpen = ({ section, pockets }: (typeof parts)[number]) =>
    only !== null || (turned.get(section.id) ?? (first.has(section.id) || pockets.some((one) => one.id === chosen)));
  return (
    <nav aria-label={TEXTS.pockets}>
      {shown.length === 0 && only !== null && <p className="p-4 text-quiet">{TEXTS.nothingNew}</p>}
      {parts.map((part) => {
        if (portfolio.sections.length === 1) return <Pockets key={part.section.id} portfolio={portfolio} pockets={part.pockets} base={base} />;
        const open = isOpen(part);
        return (
          <section key={part.section.id} aria-labelledby={`section-${part.section.id}`}>
            <Heading section={part.section} open={open} fixed={only !== null} onTurn={() => setTurned(new Map(turned).set(part.section.id, !open))} />
            {open && <Pockets portfolio={portfolio} pockets={part.pockets} base={base} />}
          </section>
        );
      })}
    </nav>
  );
}

function Heading({ section, open, fixed, onTurn }: { section: Section; open: boolean; fixed: boolean; onTurn: () => void }) {
  const { met, wanted } = section;
  return (
    <h2 id={`section-${section.id}`} className="border-b border-line bg-ground text-base">
      <button type="button" aria-expanded={open} disabled={fixed} onClick={onTurn} className="flex min-h-11 w-full items-center gap-2 py-1.5 pr-4 pl-3 text-left font-bold">
        <ChevronRight aria-hidden size={18} className={`shrink-0 text-ink-soft ${open ? "rotate-90" : ""}`} />
        <span className="min-w-0 flex-1 break-words">{section.title}</span>
        {wanted > 0 && <span className={`figures shrink-0 text-sm font-normal ${met === wanted ? "text-accepted" : "text-ink-soft"}`}>{met === wanted ? TEXTS.allIn : TEXTS.section({ met, wanted })}</span>}
      </button>
    </h2>
  );
}

function Pockets({ portfolio, pockets, base }: { portfolio: Portfolio; pockets: Pocket[]; base: string }) {
  const take = useTake(portfolio.group.id, portfolio.id);
  const fills = portfolio.mine && portfolio.may.includes("fill_pocket");
  return (
    <ul>
      {pockets.map((pocket) => (
        <Entry key={pocket.id} pocket={pocket} base={base} onItem={fills && !pocket.locked ? (item) => void take(item, pocket.id) : null} />
      ))}
    </ul>
  );
}

/** A pocket in the list; what is dragged out of the cupboard onto it is copied into it. */
function Entry({ pocket, base, onItem }: { pocket: Pocket; base: string; onItem: ((item: number) => void) | null }) {
  const { over, place } = useItemDrop(onItem);
  return (
    <li className={`border-b border-line ${over ? "outline-3 -outline-offset-3 outline-in" : ""}`} {...place}>
      <NavLink
        to={`${base}/${pocket.id}`}
        className={({ isActive }) => `flex min-h-14 items-center gap-3 border-l-4 py-2 pr-4 pl-3 ${isActive ? "border-copper bg-today" : "border-transparent hover:bg-ground"}`}
      >
        <Coat state={{ ...pocket, late: false }} size={28} />
        <span className="min-w-0">
          <span className="block font-semibold break-words">{pocket.title}</span>
          <span className={pocket.overdue ? "text-overdue" : pocket.status === "sent_back" ? "text-copper" : "text-quiet"}>{stateWords(pocket)}</span>
          {pocket.together.length > 0 && (
            <span className="mt-0.5 flex items-center gap-1 text-sm text-quiet" title={pocket.together.map((one) => one.name).join(", ")}>
              {pocket.together.map((one) => (
                <PegPicture key={`${one.name} ${one.picture} ${one.tint}`} picture={one.picture} tint={one.tint} size={18} />
              ))}
              {TEXTS.together}
            </span>
          )}
        </span>
      </NavLink>
    </li>
  );
}
