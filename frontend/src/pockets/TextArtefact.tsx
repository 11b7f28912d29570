/** An artefact that is a text: written right in its card. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { usePersonId, useSession } from "../api/session";
import { RichText } from "../ui/reading/RichText";
import { HistoryButton } from "../writing/HistoryButton";
import { RichWriting } from "../writing/RichWriting";
import { saverOf } from "../writing/saving";
import { TEXTS } from "./texts";

const ANY = { measure: "", least: 1, most: null };

interface Props {
  artefact: Schema["ArtefactShape"];
  groupId: number;
  portfolio: number;
  writable: boolean;
  mine: boolean;
}

export function TextArtefact({ artefact, groupId, portfolio, writable, mine }: Props) {
  const queries = useQueryClient();
  const person = usePersonId();
  const { text_limit: limit } = useSession();
  const text = useQuery({
    queryKey: ["group", groupId, "portfolio", "text", artefact.id],
    queryFn: () => data(client.GET("/api/texts/{artefact_id}", { params: { path: { artefact_id: artefact.id } } })),
    enabled: mine && !artefact.passage,
  });
  const save = useMemo(() => {
    const rich = saverOf(`text/${artefact.id}`);
    return async (html: string, version: number, base: string) => {
      if (!rich) throw new Problem({ title: TEXTS.thereIsNowhereToSave }, 500);
      const saved = await rich(html, version, base);
      await queries.invalidateQueries({ queryKey: ["group", groupId, "portfolio"] });
      return saved;
    };
  }, [artefact.id, groupId, queries]);
  if (!mine || artefact.passage) return <RichText html={artefact.html || `<p>${TEXTS.nothingWritten}</p>`} className="reading max-h-96 overflow-y-auto bg-today p-4 text-base" />;
  if (!text.data) return <div className="min-h-44" />;
  return (
    <div className="p-4 pb-0">
      <RichWriting
        name={`text/${artefact.id}`}
        person={person}
        label={`${TEXTS.textOf}: ${artefact.title}`}
        server={{ text: text.data.html || text.data.text, version: text.data.version }}
        writable={writable}
        length={ANY}
        limit={limit}
        groupId={groupId}
        portfolio={portfolio}
        save={save}
        tools={text.data.version > 0 && <HistoryButton kind="text" id={artefact.id} groupId={groupId} may={writable} />}
      />
    </div>
  );
}
