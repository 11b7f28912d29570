/** What a student says instead of writing it. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Mic, Trash2 } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { patiently } from "../api/patiently";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { fileAddress } from "../viewer/files";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { Player } from "../ui/reading/Player";
import { useSay } from "../ui/Toasts";
import { TEXTS } from "./texts";
import type { Extra } from "../taking-in/uploads";

const RecordDialog = lazy(() => patiently(() => import("../taking-in/RecordDialog")).then((view) => ({ default: view.RecordDialog })));

interface Props {
  /** None on a page that was never saved. */
  evidence: number | null;
  spoken: Schema["ArtefactShape"] | null;
  allowed: boolean;
  writable: boolean;
  groupId: number;
  prompt: string;
  onFiles: (files: { file: Blob; name: string; extra?: Extra }[]) => void;
}

// eslint-disable-next-line complexity -- one branch for each state of something said
export function Spoken({ evidence, spoken, allowed, writable, groupId, prompt, onFiles }: Props) {
  const queries = useQueryClient();
  const say = useSay();
  const [recording, setRecording] = useState(false);
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const path = { params: { path: { evidence_id: evidence ?? 0 } } };
  const unsay = useMutation({
    mutationFn: () => data(client.DELETE("/api/evidence/{evidence_id}/spoken", path)),
    onSuccess: async () => {
      await fresh();
      const was = spoken?.id ?? 0;
      say(TEXTS.unsaid, () => void data(client.POST("/api/evidence/{evidence_id}/spoken", { ...path, body: { artefact: was } })).finally(fresh));
    },
  });
  if (!spoken && !(allowed && writable)) return null;
  return (
    <div className="flex flex-col gap-2 rounded-md border-l-3 border-brass pl-3">
      {spoken && (
        <>
          <p className="font-bold">{writable ? TEXTS.said : TEXTS.saidBy}</p>
          <Player video={spoken.kind === "video"} src={fileAddress(spoken)} label={`${TEXTS.said}: ${prompt}`} className="max-h-64" />
          {!allowed && <p className="text-sm text-quiet">{TEXTS.saidBeside}</p>}
        </>
      )}
      {writable && (
        <div className="flex flex-wrap gap-2">
          <Button big icon={<Mic aria-hidden size={18} />} onClick={() => setRecording(true)}>
            {spoken ? TEXTS.sayAgain : TEXTS.say}
          </Button>
          {spoken && (
            <Button big look="quiet" icon={<Trash2 aria-hidden size={18} />} onClick={() => unsay.mutate()}>
              {TEXTS.unsay}
            </Button>
          )}
        </div>
      )}
      {unsay.error instanceof Problem && <Notice title={unsay.error.title} fix={unsay.error.fix} />}
      {recording && (
        <Suspense>
          <RecordDialog
            soundOnly
            title={`${TEXTS.sayTitle}: ${prompt}`}
            onClose={() => setRecording(false)}
            onDone={(file, name) => {
              onFiles([{ file, name, extra: { spoken: true, ...(evidence ? { evidence } : {}) } }]);
              setRecording(false);
            }}
          />
        </Suspense>
      )}
    </div>
  );
}
