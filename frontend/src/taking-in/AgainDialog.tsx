/** Choosing an artefact that is in the portfolio already, for one more pocket. */
import type { Schema } from "../api/client";
import { ArtefactPicker } from "../viewer/ArtefactPicker";
import { TEXTS } from "./texts";

interface Props {
  groupId: number;
  portfolio: number;
  pocket: number;
  onChoose: (artefact: Schema["ArtefactShape"]) => void;
  onClose: () => void;
}

export function AgainDialog({ groupId, portfolio, pocket, onChoose, onClose }: Props) {
  return (
    <ArtefactPicker
      title={TEXTS.again}
      none={TEXTS.againNone}
      groupId={groupId}
      portfolio={portfolio}
      fits={(one) => !one.pockets.some((each) => each.id === pocket)}
      onChoose={(one) => onChoose(one.artefact)}
      onClose={onClose}
    />
  );
}
