/** Under a form that changes something for many: what saving now would mean, and saving it or leaving it as it was. */
import type { ReactNode } from "react";
import { Problem } from "../api/problem";
import { Button } from "./Button";
import { Foot } from "./Foot";
import { Notice } from "./Notice";

interface Props {
  changed: boolean;
  /** What saving means of what stands in the form now; none while it is being worked out. */
  means: ReactNode;
  /** Why what stands there cannot be saved. */
  wrong: unknown;
  /** What stands in the way of saving, with what can be done about it. */
  hindered?: ReactNode;
  /** Why the last saving was refused: it can be tried again. */
  refused: unknown;
  saving: boolean;
  /** Saved by a button of its own, where it is no form that is submitted. */
  onSave?: () => void;
  onAsWas: () => void;
  words: { save: string; asWas: string; workingOut: string };
  /** What else can be done here. */
  children?: ReactNode;
}

export function SaveBar({ changed, means, wrong, hindered, refused, saving, onSave, onAsWas, words, children }: Props) {
  const problem = wrong ?? refused;
  return (
    <Foot>
      {problem instanceof Problem && <Notice title={problem.title} fix={problem.fix} />}
      {hindered}
      {changed && !wrong && (means ?? <p className="p-3 text-quiet">{words.workingOut}</p>)}
      <div className="flex flex-wrap items-center gap-2">
        {children}
        <span className="ml-auto flex gap-2">
          <Button className="min-h-9" disabled={!changed} onClick={onAsWas}>
            {words.asWas}
          </Button>
          <Button look="main" type={onSave ? "button" : "submit"} className="min-h-9" disabled={!changed || saving || isWrong(wrong) || Boolean(hindered)} onClick={onSave}>
            {words.save}
          </Button>
        </span>
      </div>
    </Foot>
  );
}

/** A server that was away for a moment says nothing against what stands here: saving can be tried. */
function isWrong(error: unknown): boolean {
  return Boolean(error) && !(error instanceof Problem && error.away);
}
