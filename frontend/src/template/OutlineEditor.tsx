/** An outline typed or pasted at the left, what it would lay out at the right, and one button for all of it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ListPlus } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { useUndo } from "../live/useUndo";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { useDraft } from "../writing/useDraft";
import { OUTLINE } from "./outlineTexts";
import { TEXTS } from "./texts";
import type { Kind } from "./texts";
import { IndentedText } from "../laid/IndentedText";
import { Understood } from "../laid/Understood";

interface Props {
  groupId: number;
  /** What stands in it at first. */
  text?: string;
  /** Where pockets of no section go. */
  section?: number | null;
  onDone: (made: Schema["BroughtShape"]) => void;
  onCancel?: () => void;
}

const SAID: Kind[] = ["evidence", "page", "links"];

/** What is typed, what the server understands of it, and laying it out. */
function useOutline({ groupId, text: first = "", section = null, onDone }: Props) {
  const [filled, setFilled] = useState({ text: first, kind: "evidence" as Kind });
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndo(groupId);
  const path = { params: { path: { group_id: groupId } } };
  const body = { ...filled, section };
  const settled = useSettled(body);
  const drop = useDraft(`outline/${groupId}`, filled, 0, filled.text.trim() !== "" && filled.text !== first, (kept) => setFilled((now) => (now.text.trim() === "" ? kept : now)));
  const read = useQuery({
    queryKey: ["group", groupId, "outline", settled],
    enabled: settled.text.trim() !== "",
    placeholderData: (old: Schema["ReadOutline"] | undefined) => old,
    queryFn: () => data(client.POST("/api/groups/{group_id}/template/outline/read", { ...path, body: settled })),
  });
  const lay = useMutation({
    mutationFn: () => data(client.POST("/api/groups/{group_id}/template/outline", { ...path, body })),
    onSuccess: async (made) => {
      drop();
      setFilled((old) => ({ ...old, text: "" }));
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      const back = () => data(client.POST("/api/groups/{group_id}/template/brought/undo", { ...path, body: { sections: made.sections, added: made.added } }));
      say(OUTLINE.laid({ count: made.pockets }), undo(back, TEXTS.undoneTheTemplateIsAs));
      onDone(made);
    },
  });
  const empty = filled.text.trim() === "";
  const found = empty ? null : (read.data ?? null);
  return { filled, setFilled, lay, found, error: lay.error ?? (empty ? null : read.error), ready: !empty && isReady(found) && !lay.isPending };
}

/** What has not been read yet may be laid out too: the server looks at it again. */
function isReady(found: Schema["ReadOutline"] | null): boolean {
  return found === null || found.problems.length === 0;
}

export function OutlineEditor(props: Props) {
  const { filled, setFilled, lay, found, error, ready } = useOutline(props);
  const { onCancel } = props;
  return (
    <form
      noValidate
      aria-label={OUTLINE.title}
      className="flex flex-col gap-4 md:not-low:min-h-0 md:not-low:flex-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) lay.mutate();
      }}
    >
      <div className="grid grid-cols-2 gap-5 max-md:grid-cols-1 md:not-low:min-h-0 md:not-low:flex-1">
        <div className="flex flex-col gap-3 md:not-low:min-h-0">
          <IndentedText label={OUTLINE.field} hint={OUTLINE.hint} value={filled.text} onChange={(text) => setFilled({ ...filled, text })} />
          <label className="flex flex-wrap items-center gap-2">
            {OUTLINE.unsaid}
            <select value={filled.kind} onChange={(event) => setFilled({ ...filled, kind: event.target.value as Kind })} className="min-h-9 rounded-md border border-control bg-paper px-2">
              {SAID.map((kind) => (
                <option key={kind} value={kind}>
                  {OUTLINE.kinds[kind]}
                </option>
              ))}
            </select>
          </label>
          <details>
            <summary className="font-semibold">{OUTLINE.how}</summary>
            <pre className="mt-2 rounded-md bg-ground p-3 font-sans text-sm break-words whitespace-pre-wrap">{OUTLINE.examples}</pre>
            <p className="mt-2 text-sm text-ink-soft">{OUTLINE.table}</p>
            <p className="mt-1 text-sm text-ink-soft">{OUTLINE.deeper}</p>
          </details>
        </div>
        <Understood found={found} />
      </div>
      {error instanceof Problem && <Notice title={error.where ? `${error.where}: ${error.title}` : error.title} fix={error.fix} />}
      <div className="flex flex-wrap justify-end gap-2">
        {onCancel && (
          <Button big onClick={onCancel}>
            {OUTLINE.cancel}
          </Button>
        )}
        <Button big look="main" type="submit" icon={<ListPlus aria-hidden size={18} />} disabled={!ready}>
          {OUTLINE.layOut({ count: found?.pockets ?? 0 })}
        </Button>
      </div>
    </form>
  );
}
