/** A scan or a document of a submission: its pages with what is said on them; else it is opened in the viewer. */
import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../../api/client";
import { Thumbnail } from "../../viewer/Artefact";
import { viewQuery } from "../../viewer/queries";
import { TEXTS as VIEWER } from "../../viewer/texts";
import type { Said, Target } from "./said";
import { SaidPages } from "./SaidPicture";

interface Props {
  said: Said;
  target: Target;
  artefact: Schema["ArtefactShape"];
}

export function SaidDocument({ said, target, artefact }: Props) {
  const view = useQuery(viewQuery({ of: "artefacts", id: artefact.id }));
  if (view.data?.state !== "done" || view.data.kind !== "pages") return artefact.kind === "scan" ? <Thumbnail artefact={artefact} tall /> : null;
  const pages = view.data.pages;
  return <SaidPages said={said} target={target} artefact={artefact} pages={pages} titled={(at) => VIEWER.titlePageAtOfPages({ title: artefact.title, at, pages })} />;
}
