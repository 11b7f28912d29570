/** How a pocket stands, in a few words; nothing where there is nothing to say. */
import type { Schema } from "../api/client";
import { day } from "../ui/dates";
import { STATUS_WITHIN } from "../ui/words";
import { TEXTS } from "./texts";

export function stateWords(pocket: Schema["PocketLine"]): string {
  if (pocket.opens) return TEXTS.opensOpens({ opens: day(pocket.opens) });
  if (pocket.overdue) return pocket.due ? TEXTS.wasDueDue({ due: day(pocket.due) }) : TEXTS.overdue;
  if (pocket.status === "sent_back") return TEXTS.sentBackLookAtThe;
  if (pocket.due) return TEXTS.dueDue({ due: day(pocket.due) });
  if (pocket.status === "not_open" || pocket.status === "empty") return "";
  return pocket.locked ? TEXTS.statusLocked({ status: STATUS_WITHIN[pocket.status] }) : STATUS_WITHIN[pocket.status];
}
