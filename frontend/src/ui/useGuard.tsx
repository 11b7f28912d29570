/** Before something made here and kept nowhere is let go (a recording, photos), it is asked about: by closing, and by leaving the page. */
import { useCallback, useEffect, useState } from "react";
import type { ReactNode } from "react";
import { Button } from "./Button";
import { Notice } from "./Notice";
import { TEXTS } from "./texts";

const focused = (button: HTMLButtonElement | null) => button?.focus();

/** ``losing`` says what would be lost, empty where nothing is. Returns the closing that asks, and the question once it is asked. */
export function useGuard(losing: string, onClose: () => void): [() => void, ReactNode] {
  const [asked, setAsked] = useState(false);
  const close = useCallback(() => (losing ? setAsked(true) : onClose()), [losing, onClose]);
  useEffect(() => {
    if (!losing) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [losing]);
  const question = asked && losing && (
    <Notice title={losing}>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button big ref={focused} onClick={() => setAsked(false)}>
          {TEXTS.stayHere}
        </Button>
        <Button big onClick={onClose}>
          {TEXTS.letItGo}
        </Button>
      </div>
    </Notice>
  );
  return [close, question];
}
