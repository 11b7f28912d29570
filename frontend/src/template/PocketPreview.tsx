/** How a pocket looks before anything is in it: to a student or to staff, at the width of a phone, tablet or desk. */
import { File, Maximize2 } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { ChipList, Chips } from "../ui/Chips";
import { RichText } from "../ui/reading/RichText";
import { heading } from "../log/cells";
import { columnOf } from "./fields";
import type { Fields } from "./fields";
import { SEEN_AS, TEXTS, WHOLE, WIDE_AS } from "./texts";
import type { Laid } from "./texts";

export const WIDTHS = { phone: 390, tablet: 820, desk: 1280 } as const;
export type Width = keyof typeof WIDTHS;
const SPACE = 256;
/** Pixels that the panel gives to a screen. */

interface Seen {
  fields: Fields;
  pocket: Laid;
  chips: Schema["ChipShape"][];
}

interface Props extends Seen {
  /** In a narrow window too, where it is asked for. */
  shown: boolean;
  /** The whole portfolio, at large. */
  onWhole: () => void;
}

export function PocketPreview({ fields, pocket, chips, shown, onWhole }: Props) {
  const [as, setAs] = useState<"student" | "staff">("student");
  const [width, setWidth] = useState<Width>("phone");
  const scale = SPACE / WIDTHS[width];
  return (
    <aside aria-label={TEXTS.preview} className={`flex w-[304px] shrink-0 flex-col gap-3 overflow-y-auto border-l border-line bg-paper p-4 max-lg:w-full max-lg:border-t max-lg:border-l-0 ${shown ? "" : "max-xl:hidden"}`}>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="text-base">{TEXTS.preview}</h2>
        <Choice label={TEXTS.seenAs} words={SEEN_AS} value={as} onChange={setAs} />
      </div>
      <div className="w-[272px] rounded-lg border-8 border-ink bg-ground">
        <div className="overflow-hidden rounded-sm" style={{ height: 470 }}>
          <div className="flex flex-col gap-4 p-5" style={{ width: WIDTHS[width], minHeight: 470 / scale, transform: `scale(${scale})`, transformOrigin: "top left" }}>
            {as === "student" ? <AsStudent fields={fields} files={pocket.files.filter((one) => one.version === "")} chips={chips} /> : <AsStaff fields={fields} pocket={pocket} chips={chips} />}
          </div>
        </div>
      </div>
      <Choice label={TEXTS.width} words={WIDE_AS} value={width} onChange={setWidth} />
      <Button icon={<Maximize2 aria-hidden size={16} />} onClick={onWhole}>
        {WHOLE.open}
      </Button>
    </aside>
  );
}

export function Choice<T extends string>({ label, words, value, onChange }: { label: string; words: Record<T, string>; value: T; onChange: (value: T) => void }) {
  return (
    <div role="group" aria-label={label} className="flex flex-wrap gap-1">
      {(Object.keys(words) as T[]).map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={one === value}
          onClick={() => onChange(one)}
          className={`min-h-8 rounded-md border px-2.5 text-xs font-semibold ${one === value ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`}
        >
          {words[one]}
        </button>
      ))}
    </div>
  );
}

/** A pocket as its student sees it, with what is given with it. */
export function AsStudent({ fields, files = [], chips }: { fields: Fields; files?: Laid["files"]; chips: Schema["ChipShape"][] }) {
  return (
    <>
      <div>
        <p className="text-2xl font-bold break-words">{fields.title || "…"}</p>
        <RichText html={fields.directions} className="mt-1 text-base text-ink-soft" />
      </div>
      <Given files={files} />
      <Chips chips={chips} />
      {fields.kind === "log" ? (
        <LogPreview columns={fields.columns} />
      ) : fields.kind === "page" ? (
        <div className="rounded-lg border border-edge bg-paper p-4 text-base">
          <p className="font-bold">{fields.prompt || TEXTS.yourText}</p>
          <RichText html={fields.starter} className="mt-2 min-h-24 rounded-md border border-control p-3" />
        </div>
      ) : (
        <div className="rounded-lg border border-dashed border-control p-6 text-center text-base text-ink-soft">
          {fields.kind === "links" ? TEXTS.linksGoHere : TEXTS.photosFilesAndLinksGo}
          {fields.kind === "evidence" && fields.reflection && <p className="mt-2 font-bold text-ink">{fields.prompt}</p>}
        </div>
      )}
    </>
  );
}

/** The fields of a row and the headings of the log. */
function LogPreview({ columns }: { columns: Fields["columns"] }) {
  return (
    <>
      <div className="grid gap-3 rounded-lg border border-edge bg-paper p-4 text-base">
        {columns.map((one) => (
          <p key={one.key} className="font-bold">
            {heading(columnOf(one)) || "…"}
            {one.required && <span className="font-normal text-quiet">{" "}{TEXTS.needed}</span>}
            <span className="mt-1 block min-h-11 rounded-md border border-control" />
          </p>
        ))}
      </div>
      <p className="overflow-hidden rounded-lg border border-edge bg-paper p-3 text-sm font-bold break-words">{columns.map((one) => heading(columnOf(one)) || "…").join(" · ")}</p>
    </>
  );
}

/** Pictures and files that are given with it; they open in the pocket itself. */
function Given({ files }: { files: Laid["files"] }) {
  if (files.length === 0) return null;
  return (
    <ul aria-label={TEXTS.givenWithTheDirections} className="flex flex-wrap items-start gap-3">
      {files.map((one) => (
        <li key={one.id}>
          {one.kind === "picture" ? (
            <img src={`/api/given-files/${one.id}/thumbnail`} alt={one.title} className="max-h-56 max-w-full rounded-md border border-edge bg-paper" />
          ) : (
            <span className="flex min-h-11 items-center gap-2 rounded-md border border-edge bg-paper px-4 font-semibold">
              <File aria-hidden size={18} />
              {one.title}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}

/** What staff see of it. */
export function AsStaff({ fields, pocket, chips }: Seen) {
  return (
    <>
      <p className="text-2xl font-bold break-words">{fields.title || "…"}</p>
      <div className="rounded-lg border border-edge bg-paper p-4 text-base">
        <p className="mb-1 font-bold">{TEXTS.pocketCheck}</p>
        {chips.length > 0 ? <ChipList chips={chips} /> : <p>{TEXTS.nothingWanted}</p>}
      </div>
      <p className="text-base text-ink-soft">
        {TEXTS.studentsHaveWorkInIt({ with_work: pocket.with_work, handins: pocket.handins.join(", "), countIs: pocket.handins.length > 0 })}
      </p>
    </>
  );
}
