/** Sending back: which pockets open again, and until when. */
import { useState } from "react";
import type { Schema } from "../api/client";
import { DateField } from "../ui/days/DateField";
import { Modal } from "../ui/Modal";
import { Button } from "../ui/Button";
import { TEXTS } from "./texts";

interface Props {
  open: boolean;
  desk: Schema["Desk"];
  feedback: string;
  onClose: () => void;
  onSend: (pockets: number[], dueAgain: string | null) => void;
}

export function SendBackDialog({ open, desk, feedback, onClose, onSend }: Props) {
  const all = desk.pockets.map((pocket) => pocket.id);
  const [chosen, setChosen] = useState(all);
  const [again, setAgain] = useState("");
  const toggle = (id: number) => setChosen((old) => (old.includes(id) ? old.filter((one) => one !== id) : [...old, id]));
  if (!open) return null;
  return (
    <Modal title={`${TEXTS.sendBackTitle}: ${desk.handin.title}`} onClose={onClose} narrow>
          {!feedback.trim() && <p className="rounded-md bg-today p-3">{TEXTS.thereIsNoFeedbackYet}</p>}
          {desk.pockets.length > 1 ? (
            <fieldset>
              <legend className="font-bold">{TEXTS.opens}</legend>
              {desk.pockets.map((pocket) => (
                <label key={pocket.id} className="flex min-h-9 items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-4 accent-ink"
                    checked={chosen.includes(pocket.id)}
                    onChange={() => toggle(pocket.id)}
                  />
                  {pocket.title}
                </label>
              ))}
            </fieldset>
          ) : (
            <p>{TEXTS.givenNameCanChangeIt({ given_name: desk.student.given_name })}</p>
          )}
          <DateField label={TEXTS.dueAgain} value={again} onChange={setAgain} />
          <div className="flex justify-end gap-2">
            <Button className="min-h-10" onClick={onClose}>
              {TEXTS.cancel}
            </Button>
            <Button
              look="main"
              data-autofocus
              className="min-h-10"
              disabled={chosen.length === 0}
              onClick={() => onSend(chosen.length === all.length ? [] : chosen, again || null)}
            >
              {TEXTS.confirm}
            </Button>
          </div>
    </Modal>
  );
}
