/** Choosing one's group: who is in each, and how many still fit. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { fullDay } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { PegPicture } from "../ui/people/PegPicture";
import { TEXTS } from "./chooseGroupTexts";

export function ChooseGroup({ groupId, choice, onClose }: { groupId: number; choice: Schema["GroupChoice"]; onClose: () => void }) {
  const queries = useQueryClient();
  const choose = useMutation({
    mutationFn: (group: number | null) => data(client.PUT("/api/sets/{set_id}/mine", { params: { path: { set_id: choice.id } }, body: { group } })),
    // What was refused was so because of what others did meanwhile.
    onSettled: () => queries.invalidateQueries({ queryKey: ["group", groupId] }),
  });
  return (
    <Modal title={TEXTS.title({ set: choice.name })} onClose={onClose}>
      <p>{TEXTS.hint({ day: fullDay(choice.until), most: choice.most })}</p>
      {choose.error instanceof Problem && <Notice title={choose.error.title} fix={choose.error.fix} />}
      <ul className="flex flex-col gap-3">
        {choice.groups.map((one) => (
          <li key={one.id} className={`flex flex-wrap items-center gap-3 rounded-lg border p-3 ${one.mine ? "border-copper bg-today" : "border-edge"}`}>
            <div className="min-w-40 flex-1">
              <p className="font-bold break-words">
                {one.name} <span className="font-normal text-ink-soft">{one.mine ? TEXTS.you : TEXTS.places({ count: Math.max(0, choice.most - one.members.length) })}</span>
              </p>
              <ul className="mt-1 flex flex-wrap gap-x-3 gap-y-1">
                {one.members.length === 0 && <li className="text-quiet">{TEXTS.nobody}</li>}
                {one.members.map((member, at) => (
                  <li key={at} className="flex items-center gap-1.5">
                    <PegPicture picture={member.picture} tint={member.tint} size={24} />
                    {member.name}
                  </li>
                ))}
              </ul>
            </div>
            {one.mine ? (
              <Button big className="max-sm:w-full" disabled={choose.isPending} onClick={() => choose.mutate(null)}>
                {TEXTS.leave({ name: one.name })}
              </Button>
            ) : (
              <Button big className="max-sm:w-full" disabled={choose.isPending || one.members.length >= choice.most} onClick={() => choose.mutate(one.id)}>
                {TEXTS.join({ name: one.name })}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <div className="flex justify-end">
        <Button big look="main" onClick={onClose}>
          {TEXTS.done}
        </Button>
      </div>
    </Modal>
  );
}
