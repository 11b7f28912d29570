/** Files on their way up: shown with their progress, tried again, never dropped silently. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { csrfToken } from "../api/client";
import { setConnection } from "../api/connection";
import { Problem, unreachable } from "../api/problem";

export interface Upload {
  id: number;
  file: File;
  /** From 0 to 1; null once it has failed. */
  share: number | null;
  problem: Problem | null;
}

interface Answer {
  note: string;
}

/** Send one file, telling how far it is. */
function send(address: string, file: File, onShare: (share: number) => void): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", address);
    request.setRequestHeader("X-CSRFToken", csrfToken());
    request.upload.onprogress = (event) => onShare(event.total ? event.loaded / event.total : 0);
    request.onerror = () => {
      setConnection("away");
      reject(unreachable());
    };
    request.onload = () => {
      let found: Record<string, unknown> = {};
      try {
        found = JSON.parse(request.responseText) as Record<string, unknown>;
      } catch {
        found = { title: `The server answered ${request.status}.`, fix: "Try again in a moment." };
      }
      if (request.status < 300) resolve({ note: typeof found.note === "string" ? found.note : "" });
      else reject(new Problem(found, request.status));
    };
    const body = new FormData();
    body.append("file", file);
    body.append("title", file.name);
    request.send(body);
  });
}

/** The uploads of one pocket. ``onNote`` hears what was changed about a name. */
export function useUploads(groupId: number, portfolio: number, pocket: number, limit: number, onNote: (note: string) => void) {
  const queries = useQueryClient();
  const [uploads, setUploads] = useState<Upload[]>([]);
  const next = useRef(1);
  const patch = useCallback((id: number, change: Partial<Upload>) => {
    setUploads((all) => all.map((one) => (one.id === id ? { ...one, ...change } : one)));
  }, []);
  const drop = useCallback((id: number) => setUploads((all) => all.filter((one) => one.id !== id)), []);

  const run = useCallback(
    async (id: number, file: File) => {
      patch(id, { share: 0, problem: null });
      try {
        const address = `/api/portfolios/${portfolio}/pockets/${pocket}/files`;
        const answer = await send(address, file, (share) => patch(id, { share }));
        await queries.invalidateQueries({ queryKey: ["group", groupId] });
        drop(id);
        if (answer.note) onNote(answer.note);
      } catch (error) {
        const problem = error instanceof Problem ? error : new Problem({ title: "The file could not be added." }, 500);
        patch(id, { share: null, problem });
      }
    },
    [drop, groupId, onNote, patch, pocket, portfolio, queries],
  );

  const add = useCallback(
    (files: Iterable<File>) => {
      for (const file of files) {
        const id = next.current++;
        const much = file.size > limit;
        const title = `“${file.name.slice(0, 80)}” is larger than ${Math.round(limit / 1024 / 1024)} MB, the most this school takes.`;
        const problem = much ? new Problem({ title, fix: "Make it smaller, or put a link to it.", type: "too-large" }, 413) : null;
        setUploads((all) => [...all, { id, file, share: much ? null : 0, problem }]);
        if (!much) void run(id, file);
      }
    },
    [limit, run],
  );
  const again = useCallback((upload: Upload) => void run(upload.id, upload.file), [run]);
  return { uploads, add, again, drop };
}
