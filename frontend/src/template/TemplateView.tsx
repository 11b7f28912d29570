/** The template of a class: outline, the chosen pocket's settings, and how it looks to whom. */
import { useQuery } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { Problem } from "../api/problem";
import type { Schema } from "../api/client";
import { templateQuery } from "../api/queries";
import { useGroupId } from "../api/session";
import { useOfferedPlace } from "../cupboard/places";
import { useAddress } from "../ui/address";
import { useDetail } from "../ui/detail";
import { Notice } from "../ui/Notice";
import { Failed, Waiting } from "../ui/Waiting";
import { DraftBar } from "./DraftBar";
import { DRAFT } from "./draftTexts";
import { useEdits } from "./edits";
import { GonePocket } from "./GonePocket";
import { Outline } from "./Outline";
import { OutlineEditor } from "./OutlineEditor";
import { useDropped, useLayOut } from "./layouts";
import { More, PocketForm } from "./PocketForm";
import { TEXTS } from "./texts";
import { UnitsForm } from "./UnitsForm";
import { keptQuery, useTemplateDraft } from "./useTemplateDraft";
import type { ChangePocket, SetUnits } from "./useTemplateDraft";

export function TemplateView() {
  const groupId = useGroupId();
  const found = useQuery(templateQuery(groupId));
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return <Drafted groupId={groupId} live={found.data} />;
}

type Template = Schema["TemplateShape"];

/** The template as it would stand with what is drafted, and what can be changed of it. */
// eslint-disable-next-line complexity -- one branch for each state of the page, and for what only some may do
function Drafted({ groupId, live }: { groupId: number; live: Template }) {
  const [address, setAddress] = useAddress();
  const asked = Number(address.get("pocket"));
  const saved = ({ pockets, sections }: Schema["MadeIds"]) => {
    // What was open is called otherwise now that it is there.
    const [pocket, units] = [pockets[String(asked)], sections[address.get("units") ?? ""]];
    if (pocket) setAddress({ pocket: String(pocket) }, { replace: true });
    else if (units) setAddress({ units: String(units) }, { replace: true });
  };
  const first = live.sections.flatMap((one) => one.pockets).find((one) => !one.retired)?.id ?? null;
  const draft = useTemplateDraft(groupId, asked || first, live.may_change, saved);
  const edits = useEdits(draft);
  const others = useQuery({ ...keptQuery(groupId), enabled: live.may_change });
  const template = draft.edits.length > 0 ? (draft.seen?.template ?? live) : live;
  const pockets = template.sections.flatMap((section) => section.pockets);
  useDetail(pockets.find((one) => one.id === asked)?.title);
  const units = template.sections.find((one) => one.repeats && one.id === Number(address.get("units"))) ?? null;
  const chosen = units ? null : pockets.find((one) => (asked ? one.id === asked : !one.retired)) ?? null;
  const home = template.sections.find((section) => section.pockets.some((one) => one.id === chosen?.id));
  const liveSection = live.sections.find((one) => one.id === units?.id) ?? null;
  const livePocket = live.sections.flatMap((one) => one.pockets).find((one) => one.id === chosen?.id) ?? null;
  const may = live.may_change;
  const openPocket = (id: number) => setAddress({ pocket: String(id) });
  const layOut = useLayOut(groupId, edits, openPocket);
  const [dropped, setDropped] = useState<{ item: number; pocket: number } | null>(null);
  const onItem = useDropped({
    groupId,
    layOut,
    onWith: (item, pocket) => {
      openPocket(pocket);
      setDropped({ item, pocket });
    },
  });
  const section = home?.of === null ? home : (units ?? template.sections.findLast((one) => one.of === null));
  const sectionId = section?.id ?? 0;
  const layHere = useCallback((item: number) => layOut(item, sectionId), [layOut, sectionId]);
  useOfferedPlace("section", may && section ? { name: section.title, lay: layHere } : null);
  const typedFor = (id: number | undefined) => draft.edits.find((one): one is ChangePocket => one.do === "change_pocket" && one.pocket === id);
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
      <Outline
        groupId={groupId}
        template={template}
        chosen={chosen?.id ?? null}
        units={units?.id ?? null}
        edits={edits}
        onChoose={openPocket}
        onItem={onItem}
        onUnits={(id) => setAddress({ units: String(id) })}
        busy={draft.save.busy}
        others={others.data?.others.map((one) => DRAFT.others(one)) ?? []}
      />
      <div className="flex min-h-0 min-w-0 flex-1 flex-col max-lg:flex-none">
        {edits.error instanceof Problem && (
          <div className="px-5 pt-4">
            <Notice title={edits.error.title} fix={edits.error.fix} />
          </div>
        )}
        <div inert={draft.save.busy} className="flex min-h-0 flex-1 flex-col max-lg:flex-none">
        {units ? (
          <UnitsForm
            key={`${units.id} ${liveSection?.version ?? 0} ${draft.turn}`}
            section={units}
            live={liveSection}
            pending={draft.edits.find((one): one is SetUnits => one.do === "set_units" && one.section === units.id)}
            draft={draft}
            groupId={groupId}
            may={may}
          />
        ) : chosen ? (
          <PocketForm
            key={`${chosen.id} ${livePocket?.version ?? 0} ${draft.turn}`}
            pocket={chosen}
            live={livePocket}
            pending={typedFor(chosen.id)}
            draft={draft}
            groupId={groupId}
            may={may && !chosen.laid}
            pattern={home?.repeats ?? false}
            template={template}
            layOut={layHere}
            dropped={dropped?.pocket === chosen.id ? dropped.item : null}
            onDropped={() => setDropped(null)}
          />
        ) : asked < 0 && !draft.current ? (
          <Waiting />
        ) : asked ? (
          <GonePocket key={asked} pending={typedFor(asked)} />
        ) : (
          <Nothing groupId={groupId} may={may} empty={pockets.length === 0} />
        )}
        </div>
        {may && (chosen ?? units ?? draft.edits.length > 0) && (
          <DraftBar draft={draft} templates={[live, template]}>
            {chosen && !chosen.laid && <More pocket={chosen} pattern={home?.repeats ?? false} groupId={groupId} edits={edits} onRemoved={() => setAddress({})} />}
          </DraftBar>
        )}
      </div>
    </div>
  );
}

/** No pocket is chosen; where there are none yet, they are typed or pasted right here. */
function Nothing({ groupId, may, empty }: { groupId: number; may: boolean; empty: boolean }) {
  if (!empty || !may) {
    return (
      <div className="m-auto max-w-md p-8 text-center">
        <h1 className="text-xl">{empty ? TEXTS.empty : TEXTS.none}</h1>
      </div>
    );
  }
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto p-5">
      <h1 className="text-xl">{TEXTS.empty}</h1>
      <p className="max-w-3xl text-base text-ink-soft">{TEXTS.emptyHint}</p>
      <OutlineEditor groupId={groupId} onDone={() => undefined} />
    </div>
  );
}
