/** Writing a formula and seeing it drawn. */
import { useState } from "react";
import { Button } from "../../ui/Button";
import { Formula } from "../../ui/reading/Formula";
import { Modal } from "../../ui/Modal";
import { EDITOR } from "./editorTexts";
import { TEXTS } from "../texts";

const LONGEST = 1000;

export function FormulaDialog({ tex, onDone, onClose }: { tex: string; onDone: (tex: string) => void; onClose: () => void }) {
  const [text, setText] = useState(tex);
  return (
    <Modal title={EDITOR.formulaTitle} onClose={onClose}>
      <label className="font-bold">
        {EDITOR.tex}
        <input value={text} maxLength={LONGEST} spellCheck={false} autoCapitalize="none" onChange={(event) => setText(event.target.value)} className="mt-1 block min-h-11 w-full rounded-md border border-control px-3 font-mono font-normal" />
      </label>
      <p className="text-quiet">{EDITOR.formulaHint}</p>
      <p className="min-h-12 rounded-md bg-ground p-3 text-lg" key={text}>
        <Formula tex={text} />
      </p>
      <div className="flex flex-wrap gap-2">
        <Button look="main" big disabled={!text.trim()} onClick={() => onDone(text.trim())}>
          {EDITOR.put}
        </Button>
        {tex && (
          <Button big onClick={() => onDone("")}>
            {EDITOR.away}
          </Button>
        )}
        <Button big onClick={onClose}>
          {TEXTS.cancel}
        </Button>
      </div>
    </Modal>
  );
}
