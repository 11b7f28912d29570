/** Files that were not even sent, until they are let go. */
import { useCallback, useState } from "react";
import type { Entry } from "./queue";

export function useRefused(): [Entry[], (entry: Entry, gone?: boolean) => void] {
  const [all, setAll] = useState<Entry[]>([]);
  const change = useCallback((entry: Entry, gone = false) => setAll((old) => (gone ? old.filter((one) => one.id !== entry.id) : [...old, entry])), []);
  return [all, change];
}
