/** The start: straight into the first class; for who has none, what to do. */
import { Link, Navigate } from "react-router";
import { Coat } from "../ui/Coat";
import { useSession } from "../api/session";
import { TEXTS } from "./texts";

export function Home() {
  const session = useSession();
  if (session.groups.length === 0 && session.person?.administrator) return <Navigate to="/school" replace />;
  if (session.home) return <Navigate to={session.home} replace />;
  return (
    <div className="mx-auto mt-16 flex max-w-md flex-col items-center gap-3 px-5 text-center">
      <Coat state={{ status: "working" }} size={64} />
      <h1 className="text-2xl">{TEXTS.noClass}</h1>
      <p className="text-base text-ink-soft">
        {TEXTS.noClassHint}
      </p>
      {session.person?.staff && (
        <Link to="/start" className="inline-flex min-h-11 items-center rounded-md bg-copper px-5 text-base font-semibold text-paper hover:bg-copper-deep">
          {TEXTS.newClass}
        </Link>
      )}
    </div>
  );
}
