/** Everything in the cupboard under its headings, and putting things in. */
import { useQueryClient } from "@tanstack/react-query";
import { FileText, Film, ImageIcon, Link2, NotebookText, Plus, SquareStack, Table2, Volume2 } from "lucide-react";
import type { LucideIcon } from "lucide-react";
import { lazy, Suspense, useRef, useState } from "react";
import { patiently } from "../api/patiently";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { may } from "../api/session";
import type { Group } from "../api/session";
import { upload } from "../api/upload";
import { day } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { OnFirstUse } from "../ui/OnFirstUse";
import { Select } from "../ui/Select";
import { useSay } from "../ui/Toasts";
import { sizeWords } from "../viewer/files";
import { dragged } from "./dragging";
import { cupboardQuery } from "./queries";
import type { Item } from "./queries";
import { eyesOf } from "./seenAs";
import type { Eyes } from "./seenAs";
import { setDrawer } from "./store";
import { CUPBOARD } from "./texts";

const ItemDialog = lazy(() => patiently(() => import("./ItemDialog")).then((view) => ({ default: view.ItemDialog })));

interface Props {
  cupboard: Schema["CupboardShape"];
  group: Group;
  headings: string[];
}

interface ListProps extends Props {
  eyes: Eyes;
  onEyes: (eyes: Eyes) => void;
}

// eslint-disable-next-line complexity -- one branch for each that students, staff, and staff who look as students see
export function ItemList({ cupboard, group, headings, eyes, onEyes }: ListProps) {
  const [words, setWords] = useState("");
  const student = !may(group, "see_copies");
  const looksOnly = eyes !== "staff";
  const wanted = words.toLocaleLowerCase().split(/\s+/).filter(Boolean);
  const shown = cupboard.items.filter((one) => wanted.every((word) => `${one.title} ${one.heading}`.toLocaleLowerCase().includes(word)));
  const under = [...new Set(shown.map((one) => one.heading))].map((heading) => ({ heading, items: shown.filter((one) => one.heading === heading) }));
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-col gap-2 border-b border-line px-4 py-3">
        <p className="text-sm text-ink-soft">{looksOnly ? CUPBOARD.hintEyes : student ? CUPBOARD.hintStudent : CUPBOARD.hintStaff}</p>
        {!student && <Select label={CUPBOARD.seenAs} value={eyes} options={eyesOf(cupboard)} onChange={(value) => onEyes(value as Eyes)} />}
        <div className="flex flex-wrap items-center gap-2">
          <input
            type="search"
            aria-label={CUPBOARD.find}
            placeholder={CUPBOARD.find}
            value={words}
            onChange={(event) => setWords(event.target.value)}
            className={`min-w-0 flex-1 rounded-md border border-control bg-paper px-3 ${student ? "min-h-11" : "min-h-9"}`}
          />
          {cupboard.keeps && !looksOnly && <PutIn group={group} cupboard={cupboard} headings={headings} />}
        </div>
      </div>
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reached by the keyboard */}
      <div tabIndex={shown.length === 0 ? undefined : 0} className="min-h-0 flex-1 overflow-y-auto pb-8">
        {shown.length === 0 && <p className="p-4 text-ink-soft">{words ? CUPBOARD.none : student ? CUPBOARD.emptyStudent : CUPBOARD.empty}</p>}
        {under.map(({ heading, items }) => (
          <section key={heading} aria-label={heading || CUPBOARD.unsorted}>
            {(heading || under.length > 1) && <h3 className="px-4 pt-3 pb-1 text-sm break-words text-ink-soft">{heading || CUPBOARD.unsorted}</h3>}
            <ul>
              {items.map((one) => (
                <Line key={one.id} item={one} periods={cupboard.periods} groups={cupboard.groups} student={student} looksOnly={looksOnly} />
              ))}
            </ul>
          </section>
        ))}
      </div>
    </div>
  );
}

const ICONS: Record<string, LucideIcon> = { log: Table2, pocket: SquareStack, page: NotebookText, link: Link2, picture: ImageIcon, scan: FileText, sound: Volume2, video: Film };

/** What an item is, as a word and as a picture: of a file, what kind of file. */
export function kindOf(item: Item): { word: string; Icon: LucideIcon } {
  const kind = item.kind === "file" ? item.file_kind : item.kind;
  const words: Record<string, string> = CUPBOARD.kinds;
  return { word: words[kind] ?? CUPBOARD.kinds.file, Icon: ICONS[kind] ?? FileText };
}

interface LineProps {
  item: Item;
  periods: Schema["Named"][];
  groups: Schema["Named"][];
  student: boolean;
  looksOnly: boolean;
}

function Line({ item, periods, groups, student, looksOnly }: LineProps) {
  const { word, Icon } = kindOf(item);
  return (
    <li className="border-b border-line">
      <button type="button" draggable={!looksOnly} onDragStart={(event) => dragged(event, item)} onClick={() => setDrawer({ item: item.id })} className={`flex w-full items-start gap-3 px-4 py-2 text-left hover:bg-ground ${student ? "min-h-14" : ""}`}>
        <Icon aria-hidden size={18} className="mt-0.5 shrink-0 text-ink-soft" />
        <span className="min-w-0">
          <span className="block font-semibold break-words">{item.title}</span>
          <span className="block text-sm break-words text-quiet">{[word, item.size ? sizeWords(item.size) : "", ...(student ? mine(item) : looksOnly ? [] : seen(item, periods, groups))].filter(Boolean).join(" · ")}</span>
        </span>
      </button>
    </li>
  );
}

function mine(item: Item): string[] {
  if (item.mine.length > 0) return item.mine.map((one) => CUPBOARD.youHave({ pocket: one.pocket.title }));
  return item.read ? [] : [CUPBOARD.unread];
}

/** Who is shown it, and how many have it. */
export function seen(item: Item, periods: Schema["Named"][], groups: Schema["Named"][]): string[] {
  const names = [...periods.filter((one) => item.periods.includes(one.id)), ...groups.filter((one) => item.groups.includes(one.id))].map((one) => one.title);
  return [
    item.lent_from ? CUPBOARD.lentFrom({ from: item.lent_from }) : "",
    item.staff_only ? CUPBOARD.staffOnly : "",
    !item.staff_only && item.waits && item.opens ? CUPBOARD.opensOn({ day: day(item.opens) }) : "",
    !item.staff_only && names.length > 0 ? CUPBOARD.forPeriods({ periods: names.join(", ") }) : "",
    item.read > 0 ? CUPBOARD.readBy({ count: item.read }) : "",
    item.copies > 0 ? CUPBOARD.copies({ count: item.copies }) : "",
  ];
}

/** A page, a link, or files: these at once, for staff only. */
function PutIn({ group, cupboard, headings }: Props) {
  const queries = useQueryClient();
  const say = useSay();
  const chooser = useRef<HTMLInputElement>(null);
  const [making, setMaking] = useState<"page" | "link" | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const bring = async (files: File[]) => {
    setBusy(true);
    setProblem(null);
    let count = 0;
    try {
      for (const file of files) {
        await upload<Item>(`/api/groups/${group.id}/cupboard/files`, file);
        count += 1;
      }
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem(error);
    } finally {
      setBusy(false);
      if (count > 0) say(CUPBOARD.fileIn({ count }));
      await queries.invalidateQueries({ queryKey: cupboardQuery(group.id).queryKey });
    }
  };
  const item = "flex min-h-9 w-full items-center px-4 py-1.5 text-left data-focus:bg-today";
  return (
    <>
      <OnFirstUse
        kind="Actions"
        anchor="bottom end"
        className="mt-1 py-1"
        face={{
          className: "inline-flex min-h-9 shrink-0 items-center gap-1.5 rounded-md border border-edge bg-paper px-3 font-semibold hover:border-control",
          content: (
            <>
              <Plus aria-hidden size={16} />
              {busy ? CUPBOARD.onItsWay : CUPBOARD.putIn}
            </>
          ),
        }}
        items={[
          <button key="page" type="button" className={item} onClick={() => setMaking("page")}>
            {CUPBOARD.aPage}
          </button>,
          <button key="file" type="button" className={item} onClick={() => chooser.current?.click()}>
            {CUPBOARD.aFile}
          </button>,
          <button key="link" type="button" className={item} onClick={() => setMaking("link")}>
            {CUPBOARD.aLink}
          </button>,
        ]}
      />
      <input
        ref={chooser}
        type="file"
        multiple
        hidden
        aria-label={CUPBOARD.aFile}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = "";
          if (files.length > 0) void bring(files);
        }}
      />
      {problem && (
        <div className="basis-full">
          <Notice title={problem.title} fix={problem.fix} />
        </div>
      )}
      {making && (
        <Suspense>
          <ItemDialog group={group} kind={making} item={null} periods={cupboard.periods} headings={headings} onClose={() => setMaking(null)} />
        </Suspense>
      )}
    </>
  );
}
