/** Choosing an artefact that is in the portfolio already. */
import { useQuery } from "@tanstack/react-query";
import { artefactsQuery } from "../api/queries";
import type { Schema } from "../api/client";
import { Thumbnail } from "../ui/Artefact";
import { Modal } from "../ui/Modal";
import { Failed, Waiting } from "../ui/Waiting";
import { TEXTS } from "./texts";

interface Props {
  groupId: number;
  portfolio: number;
  pocket: number;
  onChoose: (artefact: Schema["ArtefactShape"]) => void;
  onClose: () => void;
}

export function AgainDialog({ groupId, portfolio, pocket, onChoose, onClose }: Props) {
  const found = useQuery(artefactsQuery(groupId, portfolio));
  const others = (found.data ?? []).filter((one) => !one.pockets.some((each) => each.id === pocket));
  return (
    <Modal title={TEXTS.again} onClose={onClose}>
      {found.isPending && <Waiting />}
      {found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {found.data && others.length === 0 && <p>{TEXTS.againNone}</p>}
      <ul className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {others.map((one) => (
          <li key={one.artefact.id}>
            <button type="button" onClick={() => onChoose(one.artefact)} className="flex w-full flex-col overflow-hidden rounded-md border border-edge text-left hover:border-control">
              <Thumbnail artefact={one.artefact} />
              <span className="p-2">
                <span className="line-clamp-2 font-semibold break-words">{one.artefact.title}</span>
                <span className="block text-sm text-quiet">in {one.pockets.map((each) => each.title).join(", ")}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}
