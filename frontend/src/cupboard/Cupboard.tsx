/** The cupboard: a drawer beside any view, with what staff keep for students. */
import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Group } from "../api/session";
import { Failed, Waiting } from "../ui/Waiting";
import { ItemList } from "./ItemList";
import { ItemView } from "./ItemView";
import { cupboardQuery } from "./queries";
import { setDrawer, useDrawer } from "./store";
import { seenBy } from "./seenAs";
import type { Eyes } from "./seenAs";
import { CUPBOARD } from "./texts";

export function Cupboard({ group }: { group: Group }) {
  const { item } = useDrawer();
  const [eyes, setEyes] = useState<Eyes>("staff");
  const found = useQuery(cupboardQuery(group.id));
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    return () => document.querySelector<HTMLElement>("[data-cupboard-button]")?.focus();
  }, []);
  // What was pressed to come here is gone: the drawer has the focus, once a dialog over it has given it back.
  useEffect(() => {
    box.current?.focus();
    const timer = setTimeout(() => document.activeElement === document.body && box.current?.focus(), 60);
    return () => clearTimeout(timer);
  }, [item]);
  const items = seenBy(found.data?.items ?? [], eyes);
  const chosen = items.find((one) => one.id === item);
  const inside = chosen !== undefined;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const here = event.target === document.body || box.current?.contains(event.target as Node);
      if (event.key !== "Escape" || event.defaultPrevented || !here || document.querySelector("[role=dialog], [role=menu], [role=listbox]")) return;
      setDrawer(inside ? { item: null } : { open: false });
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [inside]);
  return (
    <aside
      ref={box}
      tabIndex={-1}
      aria-label={CUPBOARD.title}
      className="flex w-[320px] shrink-0 flex-col border-l border-line bg-paper outline-none max-md:fixed max-md:inset-0 max-md:z-40 max-md:w-full print:hidden"
    >
      <div className="flex items-center justify-between border-b border-line py-1 pr-1 pl-4">
        <h2 className="text-lg">{CUPBOARD.title}</h2>
        <button type="button" aria-label={CUPBOARD.close} title={CUPBOARD.close} onClick={() => setDrawer({ open: false })} className="flex size-11 items-center justify-center rounded-md text-ink-soft hover:bg-ground">
          <X aria-hidden size={18} />
        </button>
      </div>
      {found.isPending ? (
        <Waiting />
      ) : found.isError ? (
        <Failed error={found.error} again={() => void found.refetch()} />
      ) : chosen ? (
        <ItemView key={chosen.id} line={chosen} group={group} looksOnly={eyes !== "staff"} keeps={found.data.keeps} periods={found.data.periods} groups={found.data.groups} headings={headings(found.data.items)} />
      ) : (
        <ItemList cupboard={{ ...found.data, items }} group={group} headings={headings(found.data.items)} eyes={eyes} onEyes={setEyes} />
      )}
    </aside>
  );
}

function headings(items: { heading: string }[]): string[] {
  return [...new Set(items.map((one) => one.heading).filter(Boolean))];
}
