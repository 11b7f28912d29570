/** Choosing one of the artefacts that lie in a portfolio: the one picker, for whatever it is chosen for. */
import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../api/client";
import { artefactsQuery } from "../api/queries";
import { Modal } from "../ui/Modal";
import { Failed, Waiting } from "../ui/Waiting";
import { Thumbnail } from "./Artefact";
import { TEXTS } from "./texts";

export type Lying = Schema["LyingShape"];

interface Props {
  title: string;
  /** What is said where there is nothing to choose from. */
  none: string;
  groupId: number;
  portfolio: number;
  /** Which of them can be chosen. */
  fits: (one: Lying) => boolean;
  onChoose: (one: Lying) => void;
  onClose: () => void;
}

export function ArtefactPicker({ title, none, groupId, portfolio, fits, onChoose, onClose }: Props) {
  const lying = useQuery(artefactsQuery(groupId, portfolio));
  const found = (lying.data ?? []).filter(fits);
  return (
    <Modal title={title} onClose={onClose}>
      {lying.isPending && <Waiting />}
      {lying.isError && <Failed error={lying.error} again={() => void lying.refetch()} />}
      {lying.data && found.length === 0 && <p>{none}</p>}
      <ul className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {found.map((one) => (
          <li key={one.artefact.id}>
            <button type="button" onClick={() => onChoose(one)} className="flex w-full flex-col overflow-hidden rounded-md border border-edge text-left hover:border-control">
              <Thumbnail artefact={one.artefact} />
              <span className="p-2">
                <span className="line-clamp-2 font-semibold break-words">{one.artefact.title}</span>
                <span className="block text-sm text-quiet">{TEXTS.inPockets({ pockets: one.pockets.map((each) => each.title).join(", ") })}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}
