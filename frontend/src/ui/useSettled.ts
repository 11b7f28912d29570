/** A value once it has rested for a third of a second: what a person types is asked about when they pause. */
import { useEffect, useState } from "react";

const REST = 300;
/** Milliseconds. */

/** The last value that rested; ``value`` must be plain data. */
export function useSettled<T>(value: T): T {
  const text = JSON.stringify(value);
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), REST);
    return () => clearTimeout(timer);
  }, [text]);
  return JSON.parse(settled) as T;
}
