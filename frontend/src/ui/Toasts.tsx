/** Short messages at the foot of the page, with an undo for at least ten seconds. */
import { X } from "lucide-react";
import { createContext, useCallback, useContext, useMemo, useRef, useState } from "react";
import type { ReactNode } from "react";
import { Button } from "./Button";

interface Toast {
  id: number;
  text: string;
  undo?: () => void;
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
  const say = useCallback<Say>(
    (text, undo) => {
      const id = next.current++;
      setToasts((all) => [...all.slice(-2), undo ? { id, text, undo } : { id, text }]);
      setTimeout(() => drop(id), SECONDS * 1000);
    },
    [drop],
  );
  return (
    <Context.Provider value={useMemo(() => say, [say])}>
      {children}
      <div aria-live="polite" className="pointer-events-none fixed inset-x-0 bottom-4 z-50 flex flex-col items-center gap-2 px-4">
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
                Undo
              </Button>
            )}
            <button type="button" aria-label="Close this message" className="p-2" onClick={() => drop(one.id)}>
              <X aria-hidden size={16} />
            </button>
          </div>
        ))}
      </div>
    </Context.Provider>
  );
}
