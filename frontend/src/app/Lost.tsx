/** An address without a view, or a view that broke. */
import { useLayoutEffect } from "react";
import { Link } from "react-router";
import { TEXTS } from "./texts";

export function Lost({ error }: { error?: unknown }) {
  const broken = error !== undefined;
  // Also where the frame itself broke, and could not take away what the server drew to begin with.
  useLayoutEffect(() => document.getElementById("begin")?.remove(), []);
  return (
    <div className="mx-auto mt-16 max-w-md px-5 text-center">
      <h1 className="text-2xl">{broken ? TEXTS.thisViewStoppedWorking : TEXTS.lost}</h1>
      <p className="mt-2 text-base text-ink-soft">
        {broken ? TEXTS.whatYouTypedIsKept : TEXTS.lostHint}
      </p>
      <p className="mt-4">
        <Link to="/" reloadDocument={broken} className="font-semibold text-copper underline">
          {TEXTS.home}
        </Link>
      </p>
    </div>
  );
}
