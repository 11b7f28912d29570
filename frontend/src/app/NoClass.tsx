/** For who is in no class yet: what to do. */
import { Link } from "react-router";
import { useSession } from "../api/session";
import { Coat } from "../ui/Coat";
import { DIALOGS } from "./dialogTexts";

export function NoClass() {
  const staff = useSession().person?.staff ?? false;
  return (
    <div className="mx-auto mt-16 flex max-w-md flex-col items-center gap-3 px-5 text-center">
      <Coat state={{ status: "working" }} size={64} />
      <h1 className="text-2xl">{DIALOGS.noClass}</h1>
      <p className="text-base text-ink-soft">{DIALOGS.noClassHint}</p>
      {staff && (
        <Link to="/start" className="inline-flex min-h-11 items-center rounded-md bg-copper px-5 text-base font-semibold text-paper hover:bg-copper-deep">
          {DIALOGS.startAClass}
        </Link>
      )}
    </div>
  );
}
