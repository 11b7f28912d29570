/** What is said on a row of a log: its numbers, and saying more. */
import { MessageSquare } from "lucide-react";
import type { Schema } from "../../api/client";
import { begin, numbered } from "./said";
import type { Said } from "./said";
import { SAID } from "./saidTexts";

export function RowRemarks({ said, pocket, row }: { said: Said; pocket: number; row: Schema["LogShape"]["rows"][number] }) {
  const numbers = numbered(said.list);
  const here = said.list.filter((one) => one.target.pocket === pocket && one.target.row === row.id);
  return (
    <span className="inline-flex items-center gap-1 align-middle">
      {here.map((one) => (
        <button
          key={one.id}
          type="button"
          aria-label={SAID.placeNumber({ number: numbers.get(one.id) ?? 0, text: one.text })}
          aria-pressed={said.active === one.id}
          onClick={() => said.choose(one.id)}
          className={`figures flex size-6 items-center justify-center rounded-full text-xs font-bold text-paper ${said.active === one.id ? "bg-copper" : "bg-ink"}`}
        >
          {numbers.get(one.id)}
        </button>
      ))}
      {said.writes && (
        <button
          type="button"
          aria-label={SAID.row({ row: row.id })}
          title={SAID.comment}
          onClick={() => said.compose(begin({ pocket, row: row.id }))}
          className="flex size-8 items-center justify-center rounded-md text-quiet hover:bg-ground hover:text-ink"
        >
          <MessageSquare aria-hidden size={15} />
        </button>
      )}
    </span>
  );
}
