/** The whole portfolio as students have it, before anything is in it: any pocket, as any student or as staff, as wide as a phone, a tablet or a desk. */
import { useQuery } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { rosterQuery } from "../api/queries";
import { read } from "../laid/standIns";
import { KINDS } from "../laid/texts";
import { Modal } from "../ui/Modal";
import { listed } from "../ui/words";
import { fieldsOf } from "./fields";
import type { Fields } from "./fields";
import { AsStaff, AsStudent, Choice, WIDTHS } from "./PocketPreview";
import type { Width } from "./PocketPreview";
import { standsIn } from "./standIns";
import { SEEN_AS, TEXTS, WHOLE, WIDE_AS } from "./texts";
import type { Laid } from "./texts";
import type { Edit } from "./useTemplateDraft";

type Section = Schema["LaidSection"];

interface Shown extends Section {
  /** What a pattern says of the unit, where it is laid out for none yet. */
  words: (text: string) => string;
}

/** The sections that students see: those of units, and a pattern only while it is laid out for none. */
function shownOf(template: Schema["TemplateShape"]): Shown[] {
  return template.sections
    .filter((one) => !one.repeats || one.units.length === 0)
    .map((one) => ({ ...one, words: one.repeats ? (text: string) => read(text) : (text: string) => text, pockets: one.pockets.filter((pocket) => !pocket.retired) }))
    .filter((one) => one.pockets.length > 0);
}

interface Props {
  groupId: number;
  template: Schema["TemplateShape"];
  edits: Edit[];
  /** The pocket that is open behind it. */
  first: number | null;
  onClose: () => void;
}

type As = "student" | "staff";

export function WholePreview({ groupId, template, edits, first, onClose }: Props) {
  const [as, setAs] = useState<As>("student");
  const [width, setWidth] = useState<Width>("desk");
  const [student, setStudent] = useState(0);
  const [room, setRoom] = useState(0);
  const scale = room > 0 ? Math.min(1, room / WIDTHS[width]) : 1;
  return (
    <Modal title={WHOLE.title} wide onClose={onClose}>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <Choice label={TEXTS.seenAs} words={SEEN_AS} value={as} onChange={setAs} />
        {as === "student" && <Whom groupId={groupId} value={student} onChange={setStudent} />}
        <Choice label={TEXTS.width} words={WIDE_AS} value={width} onChange={setWidth} />
      </div>
      <div ref={(box) => measured(box, setRoom)} className="overflow-hidden rounded-lg border-8 border-ink bg-ground" style={{ width: width === "phone" ? WIDTHS.phone + 16 : undefined, maxWidth: "100%" }}>
        <div style={{ height: TALL * scale }}>
          <div className="flex bg-ground" style={{ width: WIDTHS[width], height: TALL, transform: `scale(${scale})`, transformOrigin: "top left" }}>
            <Screen groupId={groupId} template={template} edits={edits} first={first} narrow={width === "phone"} as={as} student={student} />
          </div>
        </div>
      </div>
    </Modal>
  );
}

/** Which student of the class. */
function Whom({ groupId, value, onChange }: { groupId: number; value: number; onChange: (student: number) => void }) {
  const roster = useQuery(rosterQuery(groupId));
  const here = roster.data?.students.filter((one) => !one.left) ?? [];
  return (
    <label className="flex items-center gap-2">
      {WHOLE.whom}
      <select value={value} onChange={(event) => onChange(Number(event.target.value))} className="min-h-9 max-w-64 rounded-md border border-control bg-paper px-2">
        <option value={0}>{WHOLE.anybody}</option>
        {here.map((one) => (
          <option key={one.id} value={one.id}>
            {listed(one)}
          </option>
        ))}
      </select>
    </label>
  );
}

type ScreenProps = Omit<Props, "onClose"> & { narrow: boolean; as: As; student: number };

/** What stands on the screen: all pockets, and the chosen one; on a phone the one or the other. */
function Screen({ groupId, template, edits, first, narrow, as, student }: ScreenProps) {
  const [opened, setOpened] = useState(first);
  const sections = shownOf(template);
  const section = sections.find((one) => one.pockets.some((pocket) => pocket.id === opened));
  const pocket = section?.pockets.find((one) => one.id === opened);
  if (!pocket || !section) {
    return (
      <>
        <List sections={sections} opened={opened} narrow={narrow} onOpen={setOpened} />
        {!narrow && <p className="m-auto p-8 text-quiet">{WHOLE.choose}</p>}
      </>
    );
  }
  return (
    <>
      {!narrow && <List sections={sections} opened={opened} narrow={false} onOpen={setOpened} />}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keys */}
      <div role="region" aria-label={WHOLE.pocket} tabIndex={0} className="flex min-w-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
        {narrow && (
          <button type="button" onClick={() => setOpened(null)} className="flex min-h-11 items-center gap-2 self-start font-semibold text-in underline">
            <ArrowLeft aria-hidden size={18} />
            {WHOLE.all}
          </button>
        )}
        <Opened groupId={groupId} may={template.may_change} edits={edits} pocket={pocket} section={section} as={as} student={student} />
      </div>
    </>
  );
}

function Opened({ groupId, may, edits, pocket, section, as, student }: { groupId: number; may: boolean; edits: Edit[]; pocket: Laid; section: Shown; as: As; student: number }) {
  const look = useLook(groupId, may, edits, pocket.id);
  const open = look.data?.pocket ?? null;
  if (as === "staff") return <AsStaff fields={standsIn(fieldsOf(pocket))} pocket={pocket} chips={open?.chips ?? []} />;
  return <AsStudent {...seenBy(pocket, section, student, open)} />;
}

const TALL = 620;
/** Pixels of the screen that is shown. */

/** How much room a box has for what stands in it. */
function measured(box: HTMLDivElement | null, say: (room: number) => void): (() => void) | undefined {
  if (!box) return undefined;
  const seen = new ResizeObserver(() => say(box.clientWidth));
  seen.observe(box);
  return () => seen.disconnect();
}

/** What the pocket asks with all that is drafted, and who has which version of it. */
function useLook(groupId: number, may: boolean, edits: Edit[], pocket: number) {
  return useQuery({
    queryKey: ["group", groupId, "template-whole", pocket, edits],
    enabled: may,
    queryFn: () => data(client.POST("/api/groups/{group_id}/template/draft/look", { params: { path: { group_id: groupId } }, body: { edits, pocket, device: "" } })),
  });
}

/** A pocket as one student has it: with the version that is theirs, and its files. */
function seenBy(pocket: Laid, section: Shown, student: number, open: Schema["OpenPocket"] | null): { fields: Fields; files: Laid["files"]; chips: Schema["ChipShape"][] } {
  const fields = standsIn(fieldsOf(pocket));
  const dealt = open?.versions.find((one) => one.students.some((each) => each.id === student))?.key ?? "";
  const version = fields.versions.find((one) => one.key === dealt);
  return {
    fields: { ...fields, title: section.words(fields.title), directions: version?.directions || fields.directions, starter: version?.starter || fields.starter },
    files: pocket.files.filter((one) => one.version === "" || one.version === version?.key),
    chips: open?.chips ?? [],
  };
}

function List({ sections, opened, narrow, onOpen }: { sections: Shown[]; opened: number | null; narrow: boolean; onOpen: (id: number) => void }) {
  return (
    <nav aria-label={WHOLE.pockets} className={`flex flex-col overflow-y-auto border-r border-line bg-paper ${narrow ? "w-full" : "w-72 shrink-0"}`}>
      {sections.map((section) => (
        <section key={section.id} aria-label={section.words(section.title)}>
          <h3 className="border-b border-line bg-ground px-4 py-3 text-base break-words">{section.words(section.title)}</h3>
          <ul>
            {section.pockets.map((one) => {
              const Icon = KINDS[one.kind].icon;
              return (
                <li key={one.id}>
                  <button
                    type="button"
                    aria-current={one.id === opened ? "page" : undefined}
                    onClick={() => onOpen(one.id)}
                    className={`flex min-h-14 w-full items-center gap-3 border-b border-line px-4 py-2 text-left text-base font-semibold ${one.id === opened ? "bg-today" : "hover:bg-ground"}`}
                  >
                    <Icon aria-hidden size={18} className="shrink-0 text-ink-soft" />
                    <span className="min-w-0 break-words">{section.words(one.title)}</span>
                  </button>
                </li>
              );
            })}
          </ul>
        </section>
      ))}
    </nav>
  );
}
