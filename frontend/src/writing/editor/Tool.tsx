/** A tool of an editor's bar: a finger's size. A press with the mouse leaves the focus in the text. */
import type { ReactNode } from "react";

export function Tool({ name, on = false, act, icon }: { name: string; on?: boolean; act: () => void; icon: ReactNode }) {
  return (
    <button type="button" aria-label={name} title={name} aria-pressed={on} onMouseDown={(event) => event.preventDefault()} onClick={act} className={`flex size-11 items-center justify-center rounded-sm ${on ? "bg-ink text-paper" : "text-ink-soft hover:bg-ground"}`}>
      {icon}
    </button>
  );
}
