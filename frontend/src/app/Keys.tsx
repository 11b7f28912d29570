/** ``?`` shows the keys of the view. */
import { lazy, Suspense, useEffect, useState } from "react";
import { patiently } from "../api/patiently";
import { isTyped, useLetterKeys } from "../ui/keys";

const KeysDialog = lazy(() => patiently(() => import("./KeysDialog")).then((view) => ({ default: view.KeysDialog })));

export function Keys({ view, student }: { view: string; student: boolean }) {
  const letters = useLetterKeys();
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const show = () => setShown(true);
    const press = (event: KeyboardEvent) => {
      if (letters && event.key === "?" && !isTyped(event)) show();
    };
    document.addEventListener("keydown", press);
    // The account's menu has it too, for whoever turned the keys off.
    document.addEventListener(SHOW_KEYS, show);
    return () => {
      document.removeEventListener("keydown", press);
      document.removeEventListener(SHOW_KEYS, show);
    };
  }, [letters]);
  if (!shown) return null;
  return (
    <Suspense>
      <KeysDialog view={view} student={student} onClose={() => setShown(false)} />
    </Suspense>
  );
}

export const SHOW_KEYS = "coat-peg-keys";
