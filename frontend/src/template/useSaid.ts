/** Does what may be refused, and says why where it is. */
import { useCallback, useEffect, useRef } from "react";
import { Problem } from "../api/problem";
import { useSay } from "../ui/Toasts";

/** The same function each time, which does what ``act`` is when it is called. */
export function useSaid<T extends unknown[]>(act: (...of: T) => Promise<void>): (...of: T) => void {
  const say = useSay();
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  return useCallback(
    (...of: T) => {
      latest.current(...of).catch((error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : String(error)));
    },
    [say],
  );
}
