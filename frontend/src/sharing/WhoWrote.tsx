/** Who wrote how much of a page, and when; choosing a person marks their words. */
import { PegPicture } from "../ui/people/PegPicture";
import { clock, localDay, shortDay, today } from "../ui/dates";
import type { Writer } from "./session";
import { TEXTS } from "./texts";

interface Props {
  people: Writer[];
  chosen: number;
  onChoose: (person: number) => void;
}

export function WhoWrote({ people, chosen, onChoose }: Props) {
  const wrote = people.filter((one) => one.last !== null);
  const there = people.filter((one) => one.last === null && one.there);
  const read = there.filter((one) => one.read);
  const not = there.filter((one) => !one.read);
  return (
    <section aria-labelledby="who-wrote-what" className="flex flex-col gap-2">
      <h2 id="who-wrote-what" className="text-base font-bold">
        {TEXTS.whoWroteWhat}
      </h2>
      {wrote.length > 0 && (
        <ul className="border-t border-line">
          {wrote.map((one) => (
            <li key={one.person} className="border-b border-line">
              <button type="button" aria-pressed={chosen === one.person} title={TEXTS.showWords({ name: one.name })} onClick={() => onChoose(chosen === one.person ? 0 : one.person)} className={`flex min-h-14 w-full items-center gap-2 px-1 py-1.5 text-left ${chosen === one.person ? "bg-today" : "hover:bg-ground"}`}>
                {one.picture && <PegPicture picture={one.picture} tint={one.tint} size={28} />}
                <span className="min-w-0 flex-1">
                  <span className="block truncate font-bold">{one.name}</span>
                  <span className="figures block text-sm text-ink-soft">{one.words > 0 ? TEXTS.words({ count: one.words, number: one.words.toLocaleString(), times: one.times }) : TEXTS.nothingNow}</span>
                  {!one.there && <span className="block text-sm text-quiet">{TEXTS.noLonger}</span>}
                </span>
                <span className="shrink-0 text-sm text-quiet">{one.last && whenOf(one.last)}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      {read.length > 0 && <p className="text-sm text-ink-soft">{TEXTS.readOnly({ names: names(read) })}</p>}
      {not.length > 0 && <p className="text-sm text-quiet">{TEXTS.notOpened({ names: names(not) })}</p>}
    </section>
  );
}

function names(people: Writer[]): string {
  return people.map((one) => one.name).join(", ");
}

function whenOf(at: string): string {
  return localDay(at) === today() ? clock(at) : shortDay(localDay(at));
}
