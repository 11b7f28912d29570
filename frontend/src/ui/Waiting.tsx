/** What stands in a view while it loads, and when it could not be loaded. */
import { useEffect, useState } from "react";
import { Problem } from "../api/problem";
import { Button } from "./Button";
import { Notice } from "./Notice";
import { TEXTS } from "./texts";

/** Nothing for the first 300 ms, then a word. */
export function Waiting() {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setShown(true), 300);
    return () => clearTimeout(timer);
  }, []);
  return (
    <p role="status" className="p-6 text-quiet">
      {shown ? TEXTS.oneMoment : ""}
    </p>
  );
}

/** Why a view could not be loaded, with another try. */
export function Failed({ error, again }: { error: unknown; again: () => void }) {
  const problem = error instanceof Problem ? error : null;
  return (
    <div className="mx-auto max-w-xl p-6">
      <Notice title={problem?.title ?? TEXTS.thisCouldNotBeLoaded} fix={problem?.fix}>
        <div className="mt-3">
          <Button onClick={again}>{TEXTS.tryAgain}</Button>
        </div>
      </Notice>
    </div>
  );
}
