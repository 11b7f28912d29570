/** What changed since the submission before: words, artefacts, rows. */
import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../api/client";
import { changesQuery } from "../api/queries";
import { Differing } from "../ui/reading/Differing";
import { CHANGES } from "./changeTexts";

type Change = Schema["DifferenceShape"];

export function Changes({ groupId, submission }: { groupId: number; submission: number }) {
  const found = useQuery(changesQuery(groupId, submission));
  if (!found.data || found.data.since === null) return null;
  const { since, changed } = found.data;
  return (
    <details open className="rounded-lg border border-edge bg-paper p-3 text-base">
      <summary className="min-h-8 cursor-pointer font-bold">{changed.length > 0 ? CHANGES.title({ since }) : CHANGES.nothing({ since })}</summary>
      <ul className="mt-1 flex flex-col gap-2">
        {changed.map((one, at) => (
          <li key={at}>
            <p>
              <strong>{one.pocket.title}</strong> · {words(one)}
            </p>
            {one.parts.length > 0 && <Differing parts={shortened(one.parts)} className="mt-1 border-l-3 border-brass pl-3" />}
            {one.cells.map((cell) => (
              <p key={cell.title} className="mt-1 border-l-3 border-brass pl-3">
                {cell.title}: <del className="bg-overdue-soft text-overdue">{cell.was}</del> <ins className="bg-accepted-soft text-accepted">{cell.now}</ins>
              </p>
            ))}
          </li>
        ))}
      </ul>
    </details>
  );
}

function words(one: Change): string {
  if (one.what === "words") return CHANGES.words({ piece: one.piece, new_words: one.new_words, gone_words: one.gone_words });
  if (one.what === "row") return CHANGES.row;
  const row = one.row !== null;
  if (one.what === "new") return row ? CHANGES.newRow : CHANGES.newPiece({ piece: one.piece });
  if (one.what === "gone") return row ? CHANGES.goneRow : CHANGES.gonePiece({ piece: one.piece });
  return CHANGES.replaced({ piece: one.piece });
}

const AROUND = 80;
/** Characters of what is the same that stand round what changed. */

/** Long runs of what is the same, cut to what stands next to a change. */
function shortened(parts: Change["parts"]): Change["parts"] {
  return parts.map((part, at) => {
    if (part.what !== "same" || part.text.length <= 2 * AROUND) return part;
    const [first, last] = [part.text.slice(0, AROUND), part.text.slice(-AROUND)];
    const text = at === 0 ? `… ${last}` : at === parts.length - 1 ? `${first} …` : `${first} … ${last}`;
    return { ...part, text };
  });
}
