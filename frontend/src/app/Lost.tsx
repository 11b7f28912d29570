/** An address without a view, one of a class that is not this person's, or a view that broke. */
import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect } from "react";
import { Link } from "react-router";
import { sessionQuery } from "../api/queries";
import { Waiting } from "../ui/Waiting";
import { TEXTS } from "./texts";

/** A class that is not this person's as far as the page knows: they may have been added since, so that is asked first. */
export function Nobodys() {
  const session = useQuery({ ...sessionQuery, refetchOnMount: "always" });
  return session.isFetching ? <Waiting /> : <Lost nobodys />;
}

const WHY = {
  broken: { title: TEXTS.thisViewStoppedWorking, hint: TEXTS.whatYouTypedIsKept },
  nobodys: { title: TEXTS.nobodys, hint: TEXTS.nobodysHint },
  nowhere: { title: TEXTS.lost, hint: TEXTS.lostHint },
};

export function Lost({ error, nobodys = false }: { error?: unknown; nobodys?: boolean }) {
  const broken = error !== undefined;
  const why = WHY[broken ? "broken" : nobodys ? "nobodys" : "nowhere"];
  // Also where the frame itself broke, and could not take away what the server drew to begin with.
  useLayoutEffect(() => document.getElementById("begin")?.remove(), []);
  return (
    <div className="mx-auto mt-16 max-w-md px-5 text-center">
      <h1 className="text-2xl">{why.title}</h1>
      <p className="mt-2 text-base text-ink-soft">{why.hint}</p>
      <p className="mt-4">
        <Link to="/" reloadDocument={broken} className="font-semibold text-copper underline">
          {TEXTS.home}
        </Link>
      </p>
    </div>
  );
}
