/** The start: straight into the first class; for who has none, what to do. */
import { lazy, Suspense } from "react";
import { Navigate } from "react-router";
import { patiently } from "../api/patiently";
import { useSession } from "../api/session";

const NoClass = lazy(() => patiently(() => import("./NoClass")).then((view) => ({ default: view.NoClass })));

export function Home() {
  const session = useSession();
  if (session.groups.length === 0 && session.person?.administrator) return <Navigate to="/school" replace />;
  if (session.home) return <Navigate to={session.home} replace />;
  return (
    <Suspense>
      <NoClass />
    </Suspense>
  );
}
