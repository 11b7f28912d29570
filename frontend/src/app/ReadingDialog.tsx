/** How one likes to read: shown at once, kept with the account. */
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { sessionQuery } from "../api/queries";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { useReading } from "../ui/reading/reading";
import type { Reading } from "../ui/reading/reading";
import { READING } from "./dialogTexts";

interface Choice<T> {
  value: T;
  name: string;
}

export function ReadingDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  // What is chosen shows at once here, and on the page as soon as the session has it.
  const [reading, setReading] = useState(useReading());
  const [problem, setProblem] = useState<Problem | null>(null);
  const latest = useRef(reading);
  const sent = useRef(Promise.resolve());
  // Shown at once; sent one after the other, so that the last choice is the one that is kept.
  const choose = (change: Partial<Reading>) => {
    const next = { ...latest.current, ...change };
    latest.current = next;
    setReading(next);
    setProblem(null);
    queries.setQueryData(sessionQuery.queryKey, (old) => (old?.person ? { ...old, person: { ...old.person, reading: next } } : old));
    sent.current = sent.current
      .then(() => data(client.PUT("/api/reading", { body: next })))
      .then(() => undefined)
      .catch((error: unknown) => setProblem(error instanceof Problem ? error : null));
  };
  return (
    <Modal title={READING.title} onClose={onClose}>
      <Row name={READING.face} choices={READING.faces} value={reading.face} onChoose={(face) => choose({ face })} />
      <Row name={READING.size} choices={READING.sizes} value={reading.size} onChoose={(size) => choose({ size })} />
      <Row name={READING.spacing} choices={READING.spacings} value={reading.spacing} onChoose={(spacing) => choose({ spacing })} />
      <Row name={READING.theme} choices={READING.themes} value={reading.theme} onChoose={(theme) => choose({ theme })} />
      <Row name={READING.tint} hint={READING.tintHint} choices={READING.tints} value={reading.tint} onChoose={(tint) => choose({ tint })} />
      <label className="flex min-h-11 items-center gap-3">
        <input type="checkbox" className="size-5 accent-ink" checked={reading.ruler} onChange={(event) => choose({ ruler: event.target.checked })} />
        {READING.ruler}
      </label>
      <label className="flex min-h-11 items-center gap-3">
        <input type="checkbox" className="size-5 accent-ink" checked={reading.keys} onChange={(event) => choose({ keys: event.target.checked })} />
        {READING.keys}
      </label>
      <Row name={READING.pace} choices={READING.paces} value={reading.pace} onChoose={(pace) => choose({ pace })} />
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="rounded-md border border-edge p-4">
        <p className="reading">{READING.example}</p>
        <ReadAloud text={READING.example} />
      </div>
    </Modal>
  );
}

function Row<T>({ name, hint = "", choices, value, onChoose }: { name: string; hint?: string; choices: readonly Choice<T>[]; value: T; onChoose: (value: T) => void }) {
  return (
    <fieldset>
      <legend className="font-bold">
        {name} {hint && <span className="font-normal text-quiet">{hint}</span>}
      </legend>
      <div className="mt-1 flex flex-wrap gap-2">
        {choices.map((one) => (
          <label key={one.name} className={`flex min-h-11 cursor-pointer items-center rounded-md border px-4 font-semibold has-focus-visible:outline-3 has-focus-visible:outline-in ${one.value === value ? "border-ink bg-ink text-paper" : "border-control"}`}>
            <input type="radio" name={name} className="sr-only" checked={one.value === value} onChange={() => onChoose(one.value)} />
            {one.name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
