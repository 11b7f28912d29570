/** A student chooses the pocket that their copy goes into, and goes to it. */
import { useQuery } from "@tanstack/react-query";
import { CopyPlus } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { portfolioQuery } from "../api/queries";
import type { Group } from "../api/session";
import { Button } from "../ui/Button";
import { useNarrow } from "../ui/useNarrow";
import type { Item, OpenedItem } from "./queries";
import { setDrawer } from "./store";
import { useTake } from "./taking";
import { CUPBOARD } from "./texts";

interface Props {
  item: OpenedItem;
  line: Item;
  group: Group;
  portfolio: number;
}

export function TakeCopy({ item, line, group, portfolio }: Props) {
  const [choosing, setChoosing] = useState(false);
  const [busy, setBusy] = useState(false);
  const narrow = useNarrow();
  const take = useTake(group.id, portfolio);
  const into = async (pocket: number) => {
    setBusy(true);
    try {
      if (await take(item.id, pocket)) setChoosing(false);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="flex flex-col gap-2">
      {line.mine.map((one) => (
        <Link
          key={one.id}
          to={`/g/${group.id}/portfolio/${one.portfolio}/${one.pocket.id}`}
          // On a phone the cupboard lies over the page.
          onClick={() => narrow && setDrawer({ open: false })}
          className="flex min-h-11 items-center font-semibold text-in underline"
        >
          <span className="min-w-0 break-words">{CUPBOARD.goTo({ pocket: one.pocket.title })}</span>
        </Link>
      ))}
      {choosing ? (
        <Pockets item={item} groupId={group.id} portfolio={portfolio} busy={busy} onChoose={(pocket) => void into(pocket)} onCancel={() => setChoosing(false)} />
      ) : (
        <Button big icon={<CopyPlus aria-hidden size={18} />} onClick={() => setChoosing(true)}>
          {CUPBOARD.take}
        </Button>
      )}
    </div>
  );
}

interface PocketsProps {
  item: OpenedItem;
  groupId: number;
  portfolio: number;
  busy: boolean;
  onChoose: (pocket: number) => void;
  onCancel: () => void;
}

/** The pockets that take it; what is locked is said and cannot be chosen. */
function Pockets({ item, groupId, portfolio, busy, onChoose, onCancel }: PocketsProps) {
  const book = useQuery(portfolioQuery(groupId, portfolio));
  const locked = new Set(book.data?.pockets.filter((one) => one.locked).map((one) => one.id));
  const fitting = item.pockets.filter((one) => !one.why_not);
  return (
    <fieldset className="rounded-md border border-edge">
      <legend className="ml-3 px-1 font-bold">{CUPBOARD.takeInto}</legend>
      <ul className="max-h-80 overflow-y-auto">
        {fitting.map((one, at) => (
          <li key={one.id}>
            {/* eslint-disable-next-line jsx-a11y/no-autofocus -- whoever pressed the button chooses next */}
            <button type="button" autoFocus={at === 0} disabled={busy || locked.has(one.id)} onClick={() => onChoose(one.id)} className="flex min-h-11 w-full items-center justify-between gap-2 px-4 text-left hover:bg-today disabled:text-quiet disabled:hover:bg-transparent">
              <span className="min-w-0 break-words">{one.title}</span>
              {locked.has(one.id) && <span className="shrink-0 text-sm">{CUPBOARD.locked}</span>}
            </button>
          </li>
        ))}
      </ul>
      <div className="border-t border-line p-2">
        <Button big onClick={onCancel}>
          {CUPBOARD.cancel}
        </Button>
      </div>
    </fieldset>
  );
}
