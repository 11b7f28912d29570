/** Under the template: what is changed and not saved, what it would mean, and saving it for everyone. */
import { X } from "lucide-react";
import { useState } from "react";
import type { ReactNode } from "react";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { SaveBar } from "../ui/SaveBar";
import { asksFor } from "../laid/texts";
import { DRAFT } from "./draftTexts";
import { plain } from "./plain";
import { TEXTS } from "./texts";
import { counted } from "./useTemplateDraft";
import type { ChangePocket, Edit, TemplateDraft } from "./useTemplateDraft";

type Template = Schema["TemplateShape"];

interface Props {
  draft: TemplateDraft;
  /** As it stands, and as it would: for the names of what is changed. */
  templates: Template[];
  children?: ReactNode;
}

export function DraftBar({ draft, templates, children }: Props) {
  const hindrances = draft.current ? (draft.seen?.hindrances ?? []) : [];
  const means = draft.current && draft.seen?.means;
  return (
    <SaveBar
      changed={draft.edits.length > 0}
      means={means ? <Means means={means} draft={draft} templates={templates} /> : undefined}
      wrong={draft.edits.length > 0 ? draft.failed : null}
      hindered={hindrances.length > 0 && <Hindrances hindrances={hindrances} draft={draft} templates={templates} />}
      refused={draft.save.error}
      saving={draft.save.busy}
      onSave={draft.save.run}
      onAsWas={draft.throwAway}
      words={{ save: TEXTS.save, asWas: DRAFT.throwAway, workingOut: TEXTS.workingOut }}
    >
      {children}
    </SaveBar>
  );
}

/** Changes that cannot be made, each with what can be done about it. */
function Hindrances({ hindrances, draft, templates }: { hindrances: Schema["Hindrance"][]; draft: TemplateDraft; templates: Template[] }) {
  return (
    <div className="flex max-h-60 flex-col gap-2 overflow-y-auto">
      {hindrances.map((one) => {
        const edit = draft.edits[one.edit];
        const version = one.version;
        return (
          <Notice key={one.edit} title={one.what} fix={one.fix}>
            {edit?.do === "change_pocket" && typeof version === "number" && <Sides edit={edit} live={templates[0]} />}
            <div className="mt-2 flex flex-wrap gap-2">
              {edit && (
                <Button aria-label={DRAFT.leaveOutOf({ change: said(edit, templates) })} onClick={() => draft.leaveOut(edit)}>
                  {DRAFT.leaveOut}
                </Button>
              )}
              {typeof version === "number" && <Button onClick={() => draft.standOver(one.edit, version)}>{DRAFT.standOver}</Button>}
            </div>
          </Notice>
        );
      })}
    </div>
  );
}

/** A pocket that two people changed: what differs, side by side. */
function Sides({ edit, live }: { edit: ChangePocket; live: Template | undefined }) {
  const theirs = live?.sections.flatMap((one) => one.pockets).find((one) => one.id === edit.pocket);
  if (!theirs) return null;
  const mine = { ...theirs, ...edit.settings };
  const rows = [
    [TEXTS.nameOfThePocket, theirs.title, mine.title],
    [TEXTS.directionsStudentsSee, plain(theirs.directions), plain(mine.directions)],
    [TEXTS.prompt, theirs.prompt, mine.prompt],
    [TEXTS.wanted, asksFor(theirs), asksFor(mine)],
    [TEXTS.starter, plain(theirs.starter), plain(mine.starter)],
  ].filter(([, left, right]) => left !== right);
  if (rows.length === 0) return null;
  return (
    <table className="mt-2 w-full table-fixed border-collapse text-left [&_td]:border-t [&_td]:border-line [&_td]:py-1 [&_td]:pr-3 [&_td]:align-top [&_td]:break-words [&_th]:py-1 [&_th]:pr-3">
      <thead>
        <tr>
          <th className="w-40" />
          <th scope="col">{DRAFT.theirs}</th>
          <th scope="col">{DRAFT.mine}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([label, left, right]) => (
          <tr key={label}>
            <th scope="row" className="border-t border-line align-top">
              {label}
            </th>
            <td>{left}</td>
            <td>{right}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What saving now would mean, and of which changes. */
function Means({ means, draft, templates }: { means: Schema["DraftMeaning"]; draft: TemplateDraft; templates: Template[] }) {
  const [listed, setListed] = useState(false);
  const [named, setNamed] = useState(false);
  const names = [...means.to_open, ...means.to_filled];
  const changes = counted(draft.edits);
  return (
    <div role="status" aria-label={TEXTS.whatSavingMeans} className="rounded-md border-l-4 border-in bg-in-soft p-3">
      <p>
        {changes.length > 1 && <>{DRAFT.unseen({ count: changes.length })} </>}
        <strong>{TEXTS.savingThisNow}</strong> {sentence(means, draft.edits)}
      </p>
      <div className="mt-2 flex flex-wrap gap-2 empty:hidden">
        {changes.length > 1 && (
          <Button aria-expanded={listed} onClick={() => setListed(!listed)}>
            {listed ? DRAFT.hideList : DRAFT.list}
          </Button>
        )}
        {names.length > 0 && (
          <Button aria-expanded={named} onClick={() => setNamed(!named)}>
            {named ? TEXTS.hideTheNames : TEXTS.seeTheCount({ count: names.length })}
          </Button>
        )}
      </div>
      {listed && (
        <ul className="mt-2 max-h-40 overflow-y-auto">
          {changes.map((edit, at) => (
            // A change has no other name than its place.
            <li key={at} className="flex min-h-7 items-center gap-2">
              <span className="min-w-0 break-words">{said(edit, templates)}</span>
              <button type="button" aria-label={DRAFT.leaveOutOf({ change: said(edit, templates) })} title={DRAFT.leaveOut} className="flex size-7 shrink-0 items-center justify-center rounded-sm hover:bg-ground" onClick={() => draft.leaveOut(edit)}>
                <X aria-hidden size={15} />
              </button>
            </li>
          ))}
        </ul>
      )}
      {named && <p className="mt-2 max-h-24 overflow-y-auto">{names.join("; ")}</p>}
    </div>
  );
}

/** Of settings alone how many portfolios they reach; else which pockets come, change and go. */
function sentence(means: Schema["DraftMeaning"], edits: Edit[]): string {
  const { students, reached, opened, filled, units } = means;
  if (edits.every((one) => one.do === "change_pocket")) {
    const more = units > 0 ? TEXTS.asksThingsMoreOf({ units }) : units < 0 ? TEXTS.asksThingsFewerOf({ units: -units }) : TEXTS.asksSomethingElseOf;
    return TEXTS.reachesPortfoliosAtOnceNothing({ students, more, reached, reachedIs: reached > 0, opened, openedIs: opened > 0, filled, filledIs: filled > 0 });
  }
  const parts = partsOf(means);
  const more = units === 0 ? "" : TEXTS.asksThingsOfStudents({ units: Math.abs(units), unitsIs: units > 0, reached });
  const moves = opened + filled > 0 ? TEXTS.movesOfFilled({ opened, openedIs: opened > 0, filled, filledIs: filled > 0 }) : "";
  return TEXTS.otherChangesNoPocketIn({ parts: parts.join(", "), countIs: parts.length > 0, students, more, opened: moves });
}

/** Which pockets come, change and go. */
function partsOf(means: Schema["DraftMeaning"]): string[] {
  return [
    means.added.length > 0 ? TEXTS.addsPockets({ count: means.added.length }) : "",
    means.changed.length > 0 ? TEXTS.changesPockets({ count: means.changed.length }) : "",
    means.retired.length > 0 ? TEXTS.retiresRetiredWithTheWork({ retired: quoted(means.retired) }) : "",
    means.back.length > 0 ? TEXTS.bringsBack({ back: quoted(means.back) }) : "",
    means.removed.length > 0 ? TEXTS.takesAwayPocketsThatNobody({ count: means.removed.length }) : "",
  ].filter(Boolean);
}

function quoted(titles: string[]): string {
  return titles.map((one) => `“${one}”`).join(", ");
}

/** A change in words. */
// eslint-disable-next-line complexity -- one branch for each kind of change
export function said(edit: Edit, templates: Template[]): string {
  switch (edit.do) {
    case "add_section":
      return DRAFT.addSection({ title: edit.title });
    case "rename_section":
      return DRAFT.renameSection({ title: sectionTitle(edit.section, templates), to: edit.title });
    case "move_section":
      return DRAFT.moveSection({ title: sectionTitle(edit.section, templates) });
    case "remove_section":
      return DRAFT.removeSection({ title: sectionTitle(edit.section, templates) });
    case "add_pocket":
      return DRAFT.addPocket({ title: pocketTitle(edit.id, templates, edit.text) });
    case "change_pocket":
      return DRAFT.changePocket({ title: pocketTitle(edit.pocket, templates, edit.settings.title) });
    case "move_pocket":
      return DRAFT.movePocket({ title: pocketTitle(edit.pocket, templates) });
    case "retire_pocket": {
      const title = pocketTitle(edit.pocket, templates);
      return edit.retired ? DRAFT.retirePocket({ title }) : DRAFT.restorePocket({ title });
    }
    case "remove_pocket":
      return DRAFT.removePocket({ title: pocketTitle(edit.pocket, templates) });
    case "set_units":
      return DRAFT.setUnits({ title: sectionTitle(edit.section, templates), count: edit.units.units.length });
    case "give_file":
      return DRAFT.giveFile({ title: pocketTitle(edit.pocket, templates) });
    case "bring_back":
      return DRAFT.bringBack;
  }
}

function sectionTitle(id: number, templates: Template[]): string {
  return templates.flatMap((one) => one.sections).find((one) => one.id === id)?.title ?? DRAFT.gone;
}

function pocketTitle(id: number, templates: Template[], otherwise: string = DRAFT.gone): string {
  const pockets = templates.flatMap((one) => one.sections).flatMap((one) => one.pockets);
  return pockets.find((one) => one.id === id)?.title ?? otherwise;
}
