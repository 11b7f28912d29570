/** Short messages at the foot of the page, with an undo for at least ten seconds. */
import { X } from "lucide-react";
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import type { ReactNode } from "react";
import { Button } from "./Button";
import { TEXTS } from "./texts";

interface Toast {
  id: number;
  text: string;
  undo: (() => void) | undefined;
  /** Seconds that it stays yet. */
  left: number;
}

type Say = (text: string, undo?: () => void) => void;

const Context = createContext<Say>(() => undefined);
const SECONDS = 12;

/** Say something that needs no answer; with ``undo`` a button stays for twelve seconds. */
export function useSay(): Say {
  return useContext(Context);
}

export function Toasts({ children }: { children: ReactNode }) {
  const [toasts, setToasts] = useState<Toast[]>([]);
  const next = useRef(1);
  const drop = useCallback((id: number) => setToasts((all) => all.filter((one) => one.id !== id)), []);
  const say = useCallback<Say>((text, undo) => {
    const id = next.current++;
    setToasts((all) => [...all.slice(-2), { id, text, undo, left: SECONDS }]);
  }, []);
  const any = toasts.length > 0;
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!any) return;
    const clock = setInterval(() => {
      if (isWaiting(box.current)) return;
      setToasts((all) => all.map((one) => ({ ...one, left: one.left - 1 })).filter((one) => one.left > 0));
    }, 1000);
    return () => clearInterval(clock);
  }, [any]);
  return (
    <Context.Provider value={useMemo(() => say, [say])}>
      {children}
      <div ref={box} aria-live="polite" className="pointer-events-none fixed inset-x-0 bottom-[calc(var(--foot,0px)+1.5rem)] z-50 flex flex-col items-center gap-2 px-4 print:hidden">
        {any && <Clear />}
        {toasts.map((one) => (
          <div
            key={one.id}
            className="on-bar pointer-events-auto flex max-w-full items-center gap-3 rounded-md bg-ink px-4 py-2 text-paper shadow-lg"
          >
            <span className="min-w-0 break-words">{one.text}</span>
            {one.undo && (
              <Button
                look="plain"
                onClick={() => {
                  one.undo?.();
                  drop(one.id);
                }}
              >
                {TEXTS.undo}
              </Button>
            )}
            <button type="button" aria-label={TEXTS.closeThisMessage} className="p-2" onClick={() => drop(one.id)}>
              <X aria-hidden size={16} />
            </button>
          </div>
        ))}
      </div>
    </Context.Provider>
  );
}

/** Messages wait while one of them has the focus or the pointer, and while a dialog lies over them. */
function isWaiting(box: HTMLElement | null): boolean {
  return !!box && (box.contains(document.activeElement) || box.querySelector(":hover") !== null || document.querySelector("[role=dialog]") !== null);
}

/** Says how high the messages are (pixels) to what scrolls beneath them (``theme.css``). */
function Clear() {
  return <span hidden ref={keepClear} />;
}

function keepClear(mark: HTMLElement | null) {
  const box = mark?.parentElement;
  if (!box) return;
  const page = document.documentElement;
  const seen = new ResizeObserver(() => page.style.setProperty("--said", `${box.offsetHeight + 32}px`));
  seen.observe(box);
  page.dataset.said = "";
  return () => {
    seen.disconnect();
    page.style.removeProperty("--said");
    delete page.dataset.said;
  };
}
