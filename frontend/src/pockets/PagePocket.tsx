/** A page: one text in a pocket, with headings, tables, pictures and formulas where it needs them. */
import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { usePersonId, useSession } from "../api/session";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { Reflection } from "../ui/reading/Reflection";
import { richOf, RichText } from "../ui/reading/RichText";
import { Comments } from "./Comments";
import { HistoryButton } from "../writing/HistoryButton";
import { RichWriting } from "../writing/RichWriting";
import { saverOf } from "../writing/saving";
import { Spoken } from "./Spoken";
import type { Extra } from "../taking-in/uploads";
import { TEXTS } from "./texts";

interface Props {
  pocket: Schema["OpenedPocket"];
  groupId: number;
  portfolio: number;
  mine: boolean;
  onFiles: (files: { file: Blob; name: string; extra?: Extra }[]) => void;
}

// eslint-disable-next-line complexity -- one branch for each thing a page may have beside it
export function PagePocket({ pocket, groupId, portfolio, mine, onFiles }: Props) {
  const queries = useQueryClient();
  const person = usePersonId();
  const { text_limit: limit } = useSession();
  const name = `page/${portfolio}/${pocket.id}`;
  const save = useMemo(() => {
    const rich = saverOf(name);
    return async (html: string, version: number, base: string) => {
      if (!rich) throw new Problem({ title: TEXTS.thereIsNowhereToSave }, 500);
      const saved = await rich(html, version, base);
      await queries.invalidateQueries({ queryKey: ["group", groupId, "portfolio"] });
      return saved;
    };
  }, [groupId, name, queries]);
  const page = pocket.evidence.find((one) => !one.artefact);
  const label = pocket.prompt || pocket.title;
  const written = page && page.version > 0 ? page : null;
  const tools = written && <HistoryButton kind="evidence" id={written.id} groupId={groupId} may={pocket.writable} />;
  return (
    <div className="flex flex-col gap-3 rounded-lg border border-edge bg-paper p-4">
      <Spoken evidence={page?.id ?? null} spoken={page?.spoken ?? null} allowed={pocket.spoken} writable={pocket.writable} groupId={groupId} prompt={label} onFiles={onFiles} />
      {mine ? (
        <RichWriting
          name={name}
          person={person}
          label={label}
          server={written ? { text: written.html || richOf(written.text), version: written.version } : { text: pocket.starter, version: 0 }}
          writable={pocket.writable}
          length={pocket}
          limit={limit}
          groupId={groupId}
          portfolio={portfolio}
          save={save}
          tools={tools}
        />
      ) : (
        <div>
          {page?.html ? <RichText html={page.html} className="reading text-base" /> : <Reflection text={page?.text ?? ""} title={label} />}
          <div className="-ml-2 flex flex-wrap">
            <ReadAloud text={page?.text ?? ""} />
            {tools}
          </div>
        </div>
      )}
      {page?.copy_of && <p className="text-sm text-quiet">{TEXTS.copyOf({ title: page.copy_of })}</p>}
      <Comments comments={pocket.comments} groupId={groupId} portfolio={portfolio} about={{ pocket: pocket.id }} />
    </div>
  );
}
