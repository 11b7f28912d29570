/** A stored picture. One that has only just come is being made ready: it says so, and shows itself as soon as it can. */
import { useEffect, useState } from "react";
import { problemOf } from "../api/problem";
import { TEXTS } from "./texts";

type Props = Omit<React.ComponentProps<"img">, "src" | "onError"> & { src: string };

const AGAIN = 1500;
/** Milliseconds between two looks for a picture that is being made ready. */
const BUSY = 423;

/** Why it is not shown; ``again`` where it may be in a moment. */
interface Why {
  words: string;
  again: boolean;
}

export function Picture({ src, alt, ...more }: Props) {
  const [why, setWhy] = useState<Why | null>(null);
  useEffect(() => {
    if (!why?.again) return;
    const timer = setTimeout(() => void look(src).then(setWhy), AGAIN);
    return () => clearTimeout(timer);
  }, [src, why]);
  if (!why) return <img src={src} alt={alt} {...more} onError={() => void look(src).then(setWhy)} />;
  return <span className="flex size-full min-h-20 items-center justify-center p-3 text-center text-sm text-ink-soft">{why.words}</span>;
}

async function look(src: string): Promise<Why | null> {
  try {
    const answer = await fetch(src);
    if (answer.ok) return null;
    const { title } = problemOf(await answer.json().catch(() => null), answer.status);
    return { words: title, again: answer.status === BUSY };
  } catch {
    return { words: TEXTS.thereIsNoConnectionJust, again: true };
  }
}
