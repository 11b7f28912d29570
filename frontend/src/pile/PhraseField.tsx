/** The feedback's field: a semicolon and a few letters find a phrase, which comes with the student's own filled in. */
import { useId, useLayoutEffect, useRef, useState } from "react";
import type { Schema } from "../api/client";
import { filledIn } from "./phrases";
import { PHRASES } from "./phraseTexts";
import { useOffers } from "./useOffers";

interface Props {
  id: string;
  desk: Schema["Desk"];
  groupId: number;
  value: string;
  className: string;
  onChange: (value: string) => void;
}

export function PhraseField({ id, desk, groupId, value, className, onChange }: Props) {
  const list = useId();
  const field = useRef<HTMLTextAreaElement>(null);
  const [caret, setCaret] = useState(0);
  /** What was put in last ends here: the caret goes there once it is drawn. */
  const end = useRef<number | null>(null);
  useLayoutEffect(() => {
    if (end.current !== null) field.current?.setSelectionRange(end.current, end.current);
    end.current = null;
  }, [value]);
  const offers = useOffers({
    desk,
    groupId,
    value,
    caret,
    onPut: (text, to) => {
      end.current = to;
      setCaret(to);
      onChange(text);
    },
  });
  return (
    <div className="relative">
      <textarea
        ref={field}
        id={id}
        data-feedback
        rows={9}
        value={value}
        aria-autocomplete="list"
        aria-controls={offers.chosen && list}
        aria-activedescendant={offers.chosen && `${list}-${offers.chosen.id}`}
        aria-describedby={`${list}-hint`}
        onChange={(event) => {
          setCaret(event.target.selectionStart);
          offers.begin();
          onChange(event.target.value);
        }}
        onSelect={(event) => setCaret(event.currentTarget.selectionStart)}
        onBlur={offers.close}
        onFocus={offers.open}
        onKeyDown={offers.keys}
        className={className}
      />
      <p id={`${list}-hint`} className="sr-only">
        {PHRASES.hint}
      </p>
      <p role="status" className="sr-only">
        {offers.looked && PHRASES.offered({ count: offers.offered.length })}
      </p>
      {offers.chosen && <Offered list={list} desk={desk} offers={offers} />}
    </div>
  );
}

function Offered({ list, desk, offers }: { list: string; desk: Schema["Desk"]; offers: ReturnType<typeof useOffers> }) {
  return (
    <div id={list} role="listbox" aria-label={PHRASES.found} className="absolute inset-x-0 top-full z-20 -mt-1 max-h-72 overflow-y-auto rounded-md border border-control bg-paper py-1 shadow-lg">
      {offers.offered.map((one) => (
        // eslint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/interactive-supports-focus -- the field has the keys, and keeps the focus
        <div
          key={one.id}
          id={`${list}-${one.id}`}
          role="option"
          aria-selected={one === offers.chosen}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => offers.put(one)}
          className={`flex min-h-9 cursor-pointer items-center px-3 py-1 ${one === offers.chosen ? "bg-today" : "hover:bg-ground"}`}
        >
          <span className="line-clamp-3 min-w-0 flex-1 break-words">{filledIn(one.text, desk)}</span>
        </div>
      ))}
    </div>
  );
}
