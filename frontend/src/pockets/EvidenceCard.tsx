/** One artefact in a pocket, with its reflection. */
import { useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { useCallback, useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { usePersonId, useSession } from "../app/session";
import { OpenArtefact, Thumbnail } from "../ui/Artefact";
import { Notice } from "../ui/Notice";
import { Reflection } from "../ui/Reflection";
import { useSay } from "../ui/Toasts";
import { TEXTS } from "./texts";
import { WritingField } from "./WritingField";

interface Props {
  evidence: Schema["EvidenceShape"];
  pocket: Schema["OpenedPocket"];
  groupId: number;
  mine: boolean;
}

export function EvidenceCard({ evidence, pocket, groupId, mine }: Props) {
  const queries = useQueryClient();
  const person = usePersonId();
  const { text_limit: limit } = useSession();
  const artefact = evidence.artefact;
  const id = evidence.id;
  const save = useCallback(
    async (text: string, version: number) => {
      const saved = await data(
        client.PUT("/api/evidence/{evidence_id}/reflection", {
          params: { path: { evidence_id: id } },
          body: { text, version },
          keepalive: text.length < 15_000,
        }),
      );
      await queries.invalidateQueries({ queryKey: ["group", groupId, "portfolio"] });
      return saved;
    },
    [groupId, id, queries],
  );
  if (!artefact) return null;
  return (
    <li className="flex flex-col overflow-hidden rounded-lg border border-edge bg-paper">
      <Thumbnail artefact={artefact} tall />
      <div className="flex flex-1 flex-col gap-3 p-4">
        <div className="flex items-start justify-between gap-2">
          <div className="min-w-0">
            <h3 className="text-base break-words">{artefact.title}</h3>
            <OpenArtefact artefact={artefact} />
          </div>
          {pocket.writable && <TakeOut evidence={evidence} groupId={groupId} title={artefact.title} />}
        </div>
        {mine ? (
          <WritingField
            name={`reflection/${id}`}
            person={person}
            label={pocket.prompt || "What does this show?"}
            server={evidence}
            writable={pocket.writable}
            length={pocket}
            limit={limit}
            rows={3}
            save={save}
          />
        ) : (
          <Reflection text={evidence.text} />
        )}
      </div>
    </li>
  );
}

function TakeOut({ evidence, groupId, title }: { evidence: Schema["EvidenceShape"]; groupId: number; title: string }) {
  const queries = useQueryClient();
  const say = useSay();
  const [problem, setProblem] = useState<Problem | null>(null);
  const path = { params: { path: { evidence_id: evidence.id } } };
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const bringBack = async () => {
    await data(client.POST("/api/evidence/{evidence_id}/restore", path));
    await fresh();
  };
  const takeOut = async () => {
    try {
      await data(client.DELETE("/api/evidence/{evidence_id}", path));
      await fresh();
      say(`“${title}” was taken out, with its reflection.`, () => void bringBack());
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  return (
    <div>
      <button
        type="button"
        aria-label={`${TEXTS.remove}: ${title}`}
        title={TEXTS.remove}
        onClick={() => void takeOut()}
        className="-m-2 flex size-11 items-center justify-center rounded-md text-ink-soft hover:bg-ground"
      >
        <Trash2 aria-hidden size={18} />
      </button>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
    </div>
  );
}
