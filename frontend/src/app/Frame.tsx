/** The frame around every view: top bar, views of the class, connection, sign-in. */
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useLayoutEffect } from "react";
import { Outlet, useLocation } from "react-router";
import { patiently } from "../api/patiently";
import { useConnection } from "../api/connection";
import { useDrawer } from "../cupboard/store";
import { useLive } from "../live/live";
import { sessionQuery } from "../api/queries";
import { may } from "../api/session";
import type { Session } from "../api/session";
import { setZone } from "../ui/dates";
import { useOpenDetail } from "../ui/detail";
import { Failed, Waiting } from "../ui/Waiting";
import { ConnectionBar } from "./ConnectionBar";
import { Keys } from "./Keys";
import { useNobodys } from "./leaving";
import { Nobodys } from "./Lost";
import { useReadingOnPage } from "../ui/reading/reading";
import { TEXTS, VIEWS } from "./texts";
import { TopBar } from "./TopBar";
// Among the first that a newcomer reads: it comes with the frame.
import { ViewHelp } from "./ViewHelp";
import { Views } from "./Views";

// Whoever is signed in already never loads it.
const SignIn = lazy(() => patiently(() => import("./SignIn")).then((view) => ({ default: view.SignIn })));

// Whoever never opens it never loads it.
const Cupboard = lazy(() => patiently(() => import("../cupboard/Cupboard")).then((view) => ({ default: view.Cupboard })));
const Ruler = lazy(() => patiently(() => import("./Ruler")).then((view) => ({ default: view.Ruler })));
// Students only.
const GoesOn = lazy(() => patiently(() => import("./GoesOn")).then((view) => ({ default: view.GoesOn })));

/** Whether the start only leads on: then nothing stands that could be pressed before the view is there, or that moves when it comes. */
function leadsOn(session: Session, pathname: string): boolean {
  return pathname === "/" && session.home !== null;
}

// eslint-disable-next-line complexity -- what the frame shows depends on who is signed in; each branch is one piece of it
export function Frame() {
  const session = useQuery(sessionQuery);
  const connection = useConnection();
  const { pathname } = useLocation();
  const group = session.data?.groups.find((one) => pathname.startsWith(`/g/${one.id}/`));
  const zone = session.data?.zone;
  if (zone) setZone(zone);
  useLive(session.data?.person && group && may(group, "follow_changes") ? group.id : null);
  const nobodys = useNobodys(pathname, group !== undefined);
  const reading = useReadingOnPage();
  const drawer = useDrawer();
  const view = pathname.split("/")[group ? 3 : 1] ?? "";
  const student = (group?.portfolio ?? null) !== null;
  const detail = useOpenDetail();
  useEffect(() => {
    document.title = [detail, VIEWS[view], group?.name, TEXTS.name].filter(Boolean).join(" · ");
  }, [detail, view, group]);

  // What the server drew to begin with stands until this does: in one and the same moment.
  useLayoutEffect(() => {
    if (!session.isPending) document.getElementById("begin")?.remove();
  }, [session.isPending]);

  if (session.isPending) {
    return document.getElementById("begin") ? null : (
      <>
        <ConnectionBar />
        <Waiting />
      </>
    );
  }
  if (session.isError) return <Failed error={session.error} again={() => void session.refetch()} />;
  if (!session.data.person || connection === "signed-out") {
    return (
      <Suspense fallback={<Waiting />}>
        <SignIn session={session.data} lost={connection === "signed-out"} />
      </Suspense>
    );
  }
  if (leadsOn(session.data, pathname)) {
    return (
      <>
        <Waiting />
        <Outlet />
      </>
    );
  }
  return (
    <div className="flex h-dvh flex-col low:h-auto low:min-h-dvh">
      <a href="#content" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-3">
        {TEXTS.skip}
      </a>
      <TopBar session={session.data} group={group ?? null} />
      {reading.ruler && (
        <Suspense>
          <Ruler />
        </Suspense>
      )}
      {session.data.groups.some((one) => may(one, "fill_pocket")) && (
        <Suspense>
          <GoesOn person={session.data.person.id} />
        </Suspense>
      )}
      {group && <Views group={group} />}
      <ConnectionBar />
      <Keys view={view} student={student} />
      <div className="flex min-h-0 flex-1">
      <main id="content" tabIndex={-1} className="flex min-h-0 min-w-0 flex-1 flex-col overflow-y-auto outline-none low:overflow-visible">
        {!(reading.helped as string[]).includes(view) && <ViewHelp view={view} student={student} />}
        <Suspense fallback={<Waiting />}>
          {nobodys ? <Nobodys /> : <Outlet />}
        </Suspense>
      </main>
      {group && drawer.open && may(group, "see_cupboard") && (
        <Suspense>
          <Cupboard key={group.id} group={group} />
        </Suspense>
      )}
      </div>
    </div>
  );
}
