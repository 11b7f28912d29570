/** The template of a class: outline, the chosen pocket's settings, and how it looks to whom. */
import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { Problem } from "../api/problem";
import { templateQuery } from "../api/queries";
import { useGroupId } from "../api/session";
import { useDetail } from "../ui/detail";
import { Notice } from "../ui/Notice";
import { Failed, Waiting } from "../ui/Waiting";
import { useEdits } from "./edits";
import { GonePocket } from "./GonePocket";
import { Outline } from "./Outline";
import { OutlineEditor } from "./OutlineEditor";
import { PocketForm } from "./PocketForm";
import { TEXTS } from "./texts";
import { UnitsForm } from "./UnitsForm";

// eslint-disable-next-line complexity -- one branch for each state of the page, and for what only some may do
export function TemplateView() {
  const groupId = useGroupId();
  const found = useQuery(templateQuery(groupId));
  const [address, setAddress] = useSearchParams();
  const edits = useEdits(groupId);
  useDetail(found.data?.sections.flatMap((one) => one.pockets).find((one) => one.id === Number(address.get("pocket")))?.title);
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const template = found.data;
  const pockets = template.sections.flatMap((section) => section.pockets);
  const units = template.sections.find((one) => one.repeats && one.id === Number(address.get("units"))) ?? null;
  const asked = Number(address.get("pocket"));
  const chosen = units ? null : pockets.find((one) => (asked ? one.id === asked : !one.retired)) ?? null;
  const home = template.sections.find((section) => section.pockets.some((one) => one.id === chosen?.id));
  const choose = (id: number) => setAddress({ pocket: String(id) });
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
      <Outline groupId={groupId} template={template} chosen={chosen?.id ?? null} units={units?.id ?? null} edits={edits} onChoose={choose} onUnits={(id) => setAddress({ units: String(id) })} />
      <div className="flex min-h-0 min-w-0 flex-1 flex-col max-lg:flex-none">
        {edits.error instanceof Problem && (
          <div className="px-5 pt-4">
            <Notice title={edits.error.title} fix={edits.error.fix} />
          </div>
        )}
        {units ? (
          <UnitsForm key={`${units.id} ${units.version}`} section={units} groupId={groupId} may={template.may_change} />
        ) : chosen ? (
          <PocketForm
            key={`${chosen.id} ${chosen.version}`}
            pocket={chosen}
            groupId={groupId}
            may={template.may_change && !chosen.laid}
            pattern={home?.repeats ?? false}
            template={template}
            edits={edits}
          />
        ) : asked ? (
          <GonePocket key={asked} id={asked} />
        ) : (
          <Nothing groupId={groupId} may={template.may_change} empty={pockets.length === 0} />
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
