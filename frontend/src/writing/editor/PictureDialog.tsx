/** Choosing a picture of the portfolio for a page. */
import { ArtefactPicker } from "../../viewer/ArtefactPicker";
import { EDITOR } from "./editorTexts";

interface Props {
  groupId: number;
  portfolio: number;
  onChoose: (src: string) => void;
  onClose: () => void;
}

export function PictureDialog({ groupId, portfolio, onChoose, onClose }: Props) {
  return (
    <ArtefactPicker
      title={EDITOR.pictureTitle}
      none={EDITOR.pictureNone}
      groupId={groupId}
      portfolio={portfolio}
      fits={(one) => one.artefact.kind === "picture"}
      onChoose={({ artefact }) => onChoose(`/api/artefacts/${artefact.id}/thumbnails/large`)}
      onClose={onClose}
    />
  );
}
