/** A scan or a document of a submission: its pages with what is said on them; else it is opened in the viewer. */
import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../../api/client";
import { Thumbnail } from "../../viewer/Artefact";
import { viewDocumentQuery, viewQuery } from "../../viewer/queries";
import { TEXTS as VIEWER } from "../../viewer/texts";
import type { Said, Target } from "./said";
import { RichText } from "../../ui/reading/RichText";
import { SaidPages } from "./SaidPicture";
import { SaidText } from "./SaidText";

interface Props {
  said: Said;
  target: Target;
  artefact: Schema["ArtefactShape"];
}

export function SaidDocument({ said, target, artefact }: Props) {
  const view = useQuery(viewQuery({ of: "artefacts", id: artefact.id }));
  const kind = view.data?.state === "done" ? view.data.kind : "";
  if (kind === "html" || kind === "text") return <Words said={said} target={target} artefact={artefact} />;
  if (view.data?.state !== "done" || kind !== "pages") return artefact.kind === "scan" ? <Thumbnail artefact={artefact} tall /> : null;
  const pages = view.data.pages;
  return <SaidPages said={said} target={target} artefact={artefact} pages={pages} titled={(at) => VIEWER.titlePageAtOfPages({ title: artefact.title, at, pages })} />;
}

/** A document that is shown as words: they are read in their place, and what is said on them is marked. */
function Words({ said, target, artefact }: Props) {
  const found = useQuery(viewDocumentQuery({ of: "artefacts", id: artefact.id }));
  if (!found.data) return null;
  const { html, text } = found.data;
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keys
    <div role="region" aria-label={artefact.title} tabIndex={0} className="max-h-[70dvh] overflow-y-auto rounded-md border border-edge p-4">
      <SaidText said={said} target={target}>
        {html ? <RichText html={html} className="reading text-base" /> : <pre className="font-sans text-base break-words whitespace-pre-wrap">{text}</pre>}
      </SaidText>
    </div>
  );
}
