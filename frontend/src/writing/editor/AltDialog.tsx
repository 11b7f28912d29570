/** What a picture in a text shows, in words: for whoever has it read aloud, and where it does not load. */
import { useState } from "react";
import { Button } from "../../ui/Button";
import { Modal } from "../../ui/Modal";
import { EDITOR } from "./editorTexts";
import { TEXTS } from "../texts";

const LONGEST = 250;

interface Props {
  src: string;
  alt: string;
  onDone: (alt: string) => void;
  onClose: () => void;
}

export function AltDialog({ src, alt, onDone, onClose }: Props) {
  const [text, setText] = useState(alt);
  return (
    <Modal title={EDITOR.altTitle} onClose={onClose} narrow>
      <img src={src} alt="" className="max-h-56 max-w-full self-center rounded-md object-contain" />
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          // The dialog stands in the page of the text: its form is not the text's.
          event.stopPropagation();
          onDone(text.trim());
        }}
      >
        <label className="font-bold">
          {EDITOR.alt}
          <input data-autofocus value={text} maxLength={LONGEST} autoComplete="off" onChange={(event) => setText(event.target.value)} className="mt-1 block min-h-11 w-full rounded-md border border-control px-3 font-normal" />
        </label>
        <p className="text-quiet">{EDITOR.altHint}</p>
        <div className="flex flex-wrap gap-2">
          <Button look="main" big type="submit">
            {EDITOR.put}
          </Button>
          <Button big onClick={onClose}>
            {TEXTS.cancel}
          </Button>
        </div>
      </form>
    </Modal>
  );
}
