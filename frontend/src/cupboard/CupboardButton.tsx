/** Opens the cupboard beside any view, and closes it: by a press or by `c`. */
import { DoorOpen } from "lucide-react";
import { useEffect } from "react";
import { isTyped, useLetterKeys } from "../ui/keys";
import { setDrawer, useDrawer } from "./store";

/** Its one word comes from the frame, so that the words of the cupboard are loaded with the cupboard. */
export function CupboardButton({ title }: { title: string }) {
  const { open } = useDrawer();
  const letters = useLetterKeys();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      // On the desk of the pile the same key comments: what has been heard already is no wish for the cupboard.
      if (!letters || event.key !== "c" || event.defaultPrevented || isTyped(event)) return;
      event.preventDefault();
      setDrawer({ open: !open });
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [letters, open]);
  return (
    <button
      type="button"
      aria-expanded={open}
      aria-keyshortcuts="c"
      data-cupboard-button
      onClick={() => setDrawer({ open: !open })}
      className={`ml-auto flex min-h-11 shrink-0 items-center gap-2 border-b-3 font-semibold whitespace-nowrap ${open ? "border-copper text-ink" : "border-transparent text-ink-soft hover:text-ink"}`}
    >
      <DoorOpen aria-hidden size={18} />
      {title}
    </button>
  );
}
