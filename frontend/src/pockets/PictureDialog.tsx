/** Choosing a picture of the portfolio for a page. */
import { useQuery } from "@tanstack/react-query";
import { artefactsQuery } from "../api/queries";
import { Thumbnail } from "../ui/Artefact";
import { Modal } from "../ui/Modal";
import { Failed, Waiting } from "../ui/Waiting";
import { EDITOR } from "./editorTexts";

interface Props {
  groupId: number;
  portfolio: number;
  onChoose: (src: string, alt: string) => void;
  onClose: () => void;
}

export function PictureDialog({ groupId, portfolio, onChoose, onClose }: Props) {
  const found = useQuery(artefactsQuery(groupId, portfolio));
  const pictures = (found.data ?? []).map((one) => one.artefact).filter((one) => one.kind === "picture");
  return (
    <Modal title={EDITOR.pictureTitle} onClose={onClose}>
      {found.isPending && <Waiting />}
      {found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {found.data && pictures.length === 0 && <p>{EDITOR.pictureNone}</p>}
      <ul className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {pictures.map((one) => (
          <li key={one.id}>
            <button type="button" onClick={() => onChoose(`/api/artefacts/${one.id}/thumbnails/large`, one.title)} className="flex w-full flex-col overflow-hidden rounded-md border border-edge text-left hover:border-control">
              <Thumbnail artefact={one} />
              <span className="line-clamp-2 p-2 font-semibold break-words">{one.title}</span>
            </button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}
