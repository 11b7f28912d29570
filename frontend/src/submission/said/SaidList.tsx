/** What is said on a part of the work, one under the other, and what is being written. */
import { MessageSquare } from "lucide-react";
import { Button } from "../../ui/Button";
import { Composer } from "./Composer";
import { begin, isOn, numbered } from "./said";
import type { Said, Target } from "./said";
import { SaidCard } from "./SaidCard";
import { SAID } from "./saidTexts";

interface Props {
  said: Said;
  /** Of which pocket, and which evidence in it; without a pocket: on the whole. */
  pocket: number | null;
  evidence?: number;
  /** What a comment that is begun here is on. */
  target: Target;
}

// eslint-disable-next-line complexity -- one branch for each state of what is written
export function SaidList({ said, pocket, evidence, target }: Props) {
  const numbers = numbered(said.list);
  const on = (one: Target) => (pocket === null ? one.pocket === null || one.pocket === undefined : isOn(one, pocket, evidence));
  const here = said.list.filter((one) => on(one.target));
  const begun = said.composing && on(said.composing.target) ? said.composing : null;
  if (here.length === 0 && !said.writes) return null;
  const cards = here.filter((one) => one.key !== begun?.key);
  return (
    <section aria-label={pocket === null ? SAID.onTheWhole : SAID.title} className="flex flex-col gap-2">
      {here.length > 0 && <h3 className="font-bold">{pocket === null ? SAID.onTheWhole : SAID.title}</h3>}
      <ol className="flex flex-col gap-2">
        {cards.map((one) => (
          <SaidCard key={one.id} said={said} one={one} number={numbers.get(one.id)} />
        ))}
      </ol>
      {/* It stays where it is also once it is kept: nothing moves under the hand that types. */}
      {begun && <Composer key={begun.key} said={said} begun={begun} />}
      {said.writes && !begun && (
        <Button look="quiet" className="-ml-3 self-start" icon={<MessageSquare aria-hidden size={15} />} onClick={() => said.compose(begin(target))}>
          {pocket === null ? SAID.commentOnWhole : SAID.comment}
        </Button>
      )}
    </section>
  );
}
