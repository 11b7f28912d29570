/** The outline: sections and pockets, typed into, dragged, and moved with the keyboard. */
import { ArrowDown, ArrowUp, ClipboardPaste, GripVertical, Plus, Repeat, Trash2 } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import type { DragEvent, KeyboardEvent } from "react";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { patiently } from "../api/patiently";
import { itemOf } from "../cupboard/dragging";
import { AddLine } from "./AddLine";
import { AddPocket } from "./AddPocket";
import type { Edits } from "./edits";
import { GalleryPart } from "./GalleryPart";
import { OUTLINE } from "./outlineTexts";
import { asksFor, KINDS } from "../laid/texts";
import { TEXTS } from "./texts";
import type { Laid } from "./texts";

const OutlineDialog = lazy(() => patiently(() => import("./OutlineDialog")).then((part) => ({ default: part.OutlineDialog })));

type Template = Schema["TemplateShape"];
type Section = Schema["LaidSection"];

interface Props {
  groupId: number;
  template: Template;
  chosen: number | null;
  /** The section whose units are open. */
  units: number | null;
  edits: Edits;
  onChoose: (id: number) => void;
  onUnits: (section: number) => void;
  /** That others have changes of it too. */
  others: string[];
  /** It is being saved: nothing can be changed until it is. */
  busy: boolean;
  /** An item of the cupboard was dropped on a section, or on a pocket in it. */
  onItem: (item: number, section: number, pocket: Laid | null) => void;
}

export function Outline({ groupId, template, chosen, units, edits, onChoose, onUnits, others, busy, onItem }: Props) {
  const may = template.may_change;
  const retired = template.sections.flatMap((section) => section.pockets.filter((one) => one.retired));
  const [adding, setAdding] = useState<Adding | null>(null);
  const [typed, setTyped] = useState<Typed | null>(null);
  return (
    <nav aria-label={TEXTS.outline} inert={busy} className="flex w-[330px] shrink-0 flex-col overflow-y-auto border-r border-line bg-paper py-3 max-lg:w-full max-lg:border-r-0 max-lg:border-b">
      {others.map((one) => (
        <p key={one} className="px-4 pb-2 text-xs text-ink-soft">
          {one}
        </p>
      ))}
      {template.sections.map((section) => (
        <SectionPart key={section.id} section={section} template={template} chosen={chosen} units={units} may={may && section.of === null} edits={edits} onChoose={onChoose} onUnits={onUnits} onItem={onItem} adding={adding} onAdding={setAdding} onTyped={setTyped} />
      ))}
      {retired.length > 0 && (
        <section aria-label={TEXTS.retired} className="mt-3">
          <h2 className="px-4 py-1 text-xs font-bold text-quiet">{TEXTS.retired}</h2>
          <ul>
            {retired.map((one) => (
              <li key={one.id}>
                <PocketLine pocket={one} chosen={one.id === chosen} onChoose={onChoose} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {may && <AddSection adding={adding} onAdding={setAdding} edits={edits} onUnits={onUnits} />}
      {may && (
        <div className="mt-4 flex flex-wrap gap-2 px-4">
          <Button icon={<Plus aria-hidden size={16} />} onClick={() => setAdding("section")}>
            {TEXTS.addSection}
          </Button>
          <Button icon={<Repeat aria-hidden size={16} />} onClick={() => setAdding("pattern")}>
            {TEXTS.addPattern}
          </Button>
          <Button icon={<ClipboardPaste aria-hidden size={16} />} onClick={() => setTyped({ text: "", section: null })}>
            {OUTLINE.open}
          </Button>
        </div>
      )}
      {typed && (
        <Suspense>
          <OutlineDialog groupId={groupId} text={typed.text} section={typed.section} onClose={() => setTyped(null)} />
        </Suspense>
      )}
      {may && <GalleryPart groupId={groupId} title={template.title} />}
      {may && <p className="mt-3 px-4 text-xs text-quiet">{TEXTS.dragAPocketOrPress}</p>}
    </nav>
  );
}

/** Where a line is open to be typed: a section, or at the end for a new section or one that repeats. */
type Adding = number | "section" | "pattern";

/** Lines on their way to the dialog. */
interface Typed {
  text: string;
  section: number | null;
}

interface AddProps {
  adding: Adding | null;
  onAdding: (adding: Adding | null) => void;
  edits: Edits;
}

interface SectionProps extends Omit<Props, "edits" | "groupId" | "others" | "busy">, AddProps {
  section: Section;
  may: boolean;
  onTyped: (typed: Typed) => void;
}

/** A new section, or one that repeats for units: named first, and its first pocket is waited for. */
function AddSection({ adding, onAdding, edits, onUnits }: AddProps & Pick<Props, "onUnits">) {
  if (adding !== "section" && adding !== "pattern") return null;
  return (
    <AddLine
      key={adding}
      label={adding === "section" ? OUTLINE.newSection : OUTLINE.newPattern}
      placeholder={adding === "section" ? OUTLINE.newSection : OUTLINE.newPattern}
      onLine={async (title) => {
        const made = await edits.addSection(title, adding === "pattern");
        if (adding === "pattern") onUnits(made);
        onAdding(made);
      }}
      onClose={() => onAdding(null)}
    />
  );
}

function SectionPart({ section, template, chosen, units, may, edits, onChoose, onUnits, onItem, adding, onAdding, onTyped }: SectionProps) {
  const pockets = section.pockets.filter((one) => !one.retired);
  const drop = (event: DragEvent, before: number | null) => {
    event.preventDefault();
    event.stopPropagation();
    const item = itemOf(event);
    if (item) {
      if (may) onItem(item, section.id, pockets.find((one) => one.id === before) ?? null);
      return;
    }
    const dragged = Number(event.dataTransfer.getData(DRAGGED_SECTION));
    if (dragged) {
      moveBefore(dragged, section.id, template, edits);
      return;
    }
    const id = Number(event.dataTransfer.getData("text/plain"));
    if (id && id !== before) edits.movePocket(id, section.id, before);
  };
  // What dragging does, Alt with an arrow key does too.
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <section aria-label={section.title} onDragOver={(event) => event.preventDefault()} onDrop={(event) => drop(event, null)} className={section.of === null ? "pb-2" : "ml-4 border-l border-line pb-1"}>
      <SectionTitle key={section.title} section={section} template={template} may={may} edits={edits} />
      {section.repeats && <UnitsLine section={section} chosen={section.id === units} onUnits={onUnits} />}
      <ul>
        {pockets.map((one, place) => (
          // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
          <li
            key={one.id}
            draggable={may}
            onDragStart={(event) => {
              event.dataTransfer.setData("text/plain", String(one.id));
              event.dataTransfer.effectAllowed = "move";
            }}
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => drop(event, one.id)}
          >
            <PocketLine
              pocket={one}
              chosen={one.id === chosen}
              onChoose={onChoose}
              grip={may}
              onKeyDown={may ? (event) => moveByKey(event, template, section, place, one.id, edits) : undefined}
            />
            {may && one.id === chosen && (
              <span className="flex gap-1 border-l-4 border-copper bg-today pb-1 pl-6">
                <button type="button" className={STEP} onClick={() => step(true, template, section, place, one.id, edits)}>
                  <ArrowUp aria-hidden size={15} /> {TEXTS.up}
                  <span className="sr-only"> {one.title}</span>
                </button>
                <button type="button" className={STEP} onClick={() => step(false, template, section, place, one.id, edits)}>
                  <ArrowDown aria-hidden size={15} /> {TEXTS.down}
                  <span className="sr-only"> {one.title}</span>
                </button>
              </span>
            )}
          </li>
        ))}
        {pockets.length === 0 && section.of === null && <li className="px-4 py-1.5 text-quiet">{TEXTS.noPocketsYet}</li>}
      </ul>
      {may && (
        <AddPocket
          section={section}
          open={adding === section.id}
          edits={edits}
          onOpen={(open) => onAdding(open ? section.id : null)}
          onMade={onChoose}
          onLines={(text) => onTyped({ text, section: section.id })}
        />
      )}
    </section>
  );
}

function UnitsLine({ section, chosen, onUnits }: { section: Section; chosen: boolean; onUnits: (section: number) => void }) {
  return (
    <button
      type="button"
      aria-current={chosen ? "true" : undefined}
      onClick={() => onUnits(section.id)}
      className={`flex min-h-8 w-full items-center gap-2 border-l-4 py-1 pr-4 pl-3 text-left ${chosen ? "border-copper bg-today" : "border-transparent hover:bg-ground"}`}
    >
      <Repeat aria-hidden size={16} className="shrink-0 text-ink-soft" />
      <span className="flex-1 font-semibold">{TEXTS.units}</span>
      <span className="text-xs text-quiet">{section.units.length === 0 ? TEXTS.noneYet : section.units.length}</span>
    </button>
  );
}

/** Alt and an arrow key move a pocket by one place, over the borders of sections too. */
function moveByKey(event: KeyboardEvent, template: Template, section: Section, place: number, id: number, edits: Edits): void {
  if (!event.altKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
  event.preventDefault();
  step(event.key === "ArrowUp", template, section, place, id, edits);
}

const STEP = "inline-flex min-h-7 items-center gap-1 rounded-sm px-2 text-xs font-semibold text-ink-soft hover:bg-paper";

/** Move a pocket by one place, over the borders of sections too. */
function step(up: boolean, template: Template, section: Section, place: number, id: number, edits: Edits): void {
  const pockets = section.pockets.filter((one) => !one.retired);
  const at = template.sections.indexOf(section);
  if (up) moveUp(id, place, section, pockets, template.sections[at - 1], edits);
  else moveDown(id, place, section, pockets, template.sections[at + 1], edits);
}

type Pockets = Section["pockets"];

function moveUp(id: number, place: number, section: Section, pockets: Pockets, above: Section | undefined, edits: Edits): void {
  if (place > 0) edits.movePocket(id, section.id, pockets[place - 1]?.id ?? null);
  else if (above) edits.movePocket(id, above.id, null);
}

function moveDown(id: number, place: number, section: Section, pockets: Pockets, below: Section | undefined, edits: Edits): void {
  if (place < pockets.length - 1) edits.movePocket(id, section.id, pockets[place + 2]?.id ?? null);
  else if (below) edits.movePocket(id, below.id, below.pockets.find((one) => !one.retired)?.id ?? null);
}

/** The kind of what is dragged: a section, where it is no pocket. */
const DRAGGED_SECTION = "application/x-coat-peg-section";

/** The sections that staff lay out themselves: those of units follow their pattern. */
function ownSections(template: Template): Section[] {
  return template.sections.filter((one) => one.of === null);
}

function moveBefore(id: number, before: number | null, template: Template, edits: Edits): void {
  const own = ownSections(template);
  const at = own.findIndex((one) => one.id === id);
  const section = own[at];
  const was = own[at + 1]?.id ?? null;
  if (section && before !== id && before !== was) edits.moveSection(section, before);
}

/** Move a section by one place. */
function stepSection(up: boolean, section: Section, template: Template, edits: Edits): void {
  const own = ownSections(template);
  const at = own.findIndex((one) => one.id === section.id);
  if (up ? at > 0 : at < own.length - 1) moveBefore(section.id, (up ? own[at - 1] : own[at + 2])?.id ?? null, template, edits);
}

function SectionTitle({ section, template, may, edits }: { section: Section; template: Template; may: boolean; edits: Edits }) {
  const [title, setTitle] = useState(section.title);
  const keep = () => {
    const tidy = title.trim();
    if (tidy && tidy !== section.title) edits.renameSection(section, tidy);
    else setTitle(section.title);
  };
  if (!may) return <h2 className="px-4 py-1.5 text-xs font-bold text-ink-soft">{section.title}</h2>;
  const icon = "flex size-7 shrink-0 items-center justify-center rounded-sm text-quiet hover:text-ink aria-disabled:opacity-30";
  const own = ownSections(template);
  return (
    <div className="flex items-center px-1.5">
      <span
        aria-hidden
        title={OUTLINE.dragSection}
        draggable
        onDragStart={(event) => {
          event.dataTransfer.setData(DRAGGED_SECTION, String(section.id));
          event.dataTransfer.effectAllowed = "move";
        }}
        className="shrink-0 cursor-grab text-quiet"
      >
        <GripVertical size={14} />
      </span>
      <h2 className="min-w-0 flex-1">
        <input
          aria-label={TEXTS.nameOfTheSectionTitle({ title: section.title })}
          value={title}
          onChange={(event) => setTitle(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === "Enter") event.currentTarget.blur();
            if (!event.altKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
            event.preventDefault();
            stepSection(event.key === "ArrowUp", section, template, edits);
          }}
          className="w-full rounded-sm px-2 py-1 text-xs font-bold text-ink-soft hover:bg-ground focus:bg-paper"
        />
      </h2>
      {section.pockets.length === 0 && (
        <button type="button" aria-label={TEXTS.takeAwayTheSectionTitle({ title: section.title })} className={icon} onClick={() => edits.removeSection(section)}>
          <Trash2 aria-hidden size={15} />
        </button>
      )}
      {own.length > 1 && (
        <>
          <button type="button" aria-label={OUTLINE.sectionUp({ title: section.title })} className={icon} aria-disabled={own[0] === section || undefined} onClick={() => stepSection(true, section, template, edits)}>
            <ArrowUp aria-hidden size={14} />
          </button>
          <button type="button" aria-label={OUTLINE.sectionDown({ title: section.title })} className={icon} aria-disabled={own.at(-1) === section || undefined} onClick={() => stepSection(false, section, template, edits)}>
            <ArrowDown aria-hidden size={14} />
          </button>
        </>
      )}
    </div>
  );
}

interface LineProps {
  pocket: Laid;
  chosen: boolean;
  onChoose: (id: number) => void;
  grip?: boolean;
  onKeyDown?: ((event: KeyboardEvent) => void) | undefined;
}

function PocketLine({ pocket, chosen, onChoose, grip = false, onKeyDown }: LineProps) {
  const Icon = KINDS[pocket.kind].icon;
  return (
    <button
      type="button"
      aria-current={chosen ? "true" : undefined}
      onClick={() => onChoose(pocket.id)}
      onKeyDown={onKeyDown}
      className={`flex min-h-8 w-full items-center gap-2 border-l-4 py-1 pr-4 text-left ${grip ? "pl-1.5" : "pl-4"} ${chosen ? "border-copper bg-today" : "border-transparent hover:bg-ground"} ${pocket.retired ? "text-quiet" : ""}`}
    >
      {grip && <GripVertical aria-hidden size={14} className="shrink-0 cursor-grab text-quiet" />}
      <Icon aria-hidden size={16} className="shrink-0 text-ink-soft" />
      {/* What is asked for stands below a title that leaves it no room. */}
      <span className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-2">
        <span className="max-w-full min-w-0 grow truncate font-semibold" title={pocket.title}>
          {pocket.title}
        </span>
        <span className="text-xs text-quiet">{pocket.retired ? TEXTS.workOfWithWork({ with_work: pocket.with_work }) : asksFor(pocket)}</span>
      </span>
    </button>
  );
}
