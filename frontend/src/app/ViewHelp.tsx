/** What a view is for, in two lines: shown until it is put away; afterwards among its keys. */
import { useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { sessionQuery } from "../api/queries";
import { useReading } from "../ui/reading/reading";
import { useSay } from "../ui/Toasts";
import { helpOf } from "./helpTexts";
import { TEXTS } from "./texts";

type View = Schema["ReadingShape"]["helped"][number];

export function ViewHelp({ view, student }: { view: string; student: boolean }) {
  const queries = useQueryClient();
  const say = useSay();
  const reading = useReading();
  const help = helpOf(view, student);
  if (!help) return null;
  const show = (helped: View[]) => queries.setQueryData(sessionQuery.queryKey, (old) => (old?.person ? { ...old, person: { ...old.person, reading: { ...old.person.reading, helped } } } : old));
  const putAway = () => {
    const helped = [...reading.helped, view as View];
    show(helped);
    // What had the focus is gone: the keyboard goes on at the content.
    document.getElementById("content")?.focus();
    data(client.PUT("/api/reading", { body: { ...reading, helped } })).catch((error: unknown) => {
      show(reading.helped);
      say(error instanceof Problem ? error.title : TEXTS.notPutAway);
    });
  };
  return (
    <aside aria-label={TEXTS.whatFor} className="flex shrink-0 items-center gap-3 border-b border-line bg-in-soft px-5 py-2 max-sm:px-3 print:hidden">
      <p className="min-w-0 flex-1">{help}</p>
      <button type="button" onClick={putAway} className="-my-1 flex min-h-9 shrink-0 items-center gap-1.5 rounded-md px-2 font-semibold text-in hover:bg-ground max-md:min-h-11">
        <X aria-hidden size={15} />
        {TEXTS.putAway}
      </button>
    </aside>
  );
}
