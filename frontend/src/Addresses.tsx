/** What stands at an address: the frame with its view, or one of the few things without a frame. */
import { Suspense } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { BrowserRouter, Outlet, Route, Routes, useLocation } from "react-router";
import { usePreloadedViews } from "./preload";
import { CARD, PLACES } from "./routes";
import { Frame } from "./app/Frame";
import { Home } from "./app/Home";
import { Lost } from "./app/Lost";

export function Addresses() {
  return (
    <BrowserRouter>
      <ErrorBoundary FallbackComponent={Lost}>
        <Routes>
          <Route path="card" element={<Suspense><CARD.View /></Suspense>} />
          <Route element={<Frame />}>
            <Route element={<Guarded />}>
              <Route index element={<Home />} />
              {PLACES.map(([path, { View }]) => (
                <Route key={path} path={path} element={<View />} />
              ))}
              <Route path="*" element={<Lost />} />
            </Route>
          </Route>
        </Routes>
      </ErrorBoundary>
    </BrowserRouter>
  );
}

/** A view that breaks leaves the frame, and with it every other view, where it was. */
function Guarded() {
  const location = useLocation();
  usePreloadedViews(location.pathname);
  return (
    <ErrorBoundary FallbackComponent={Lost} resetKeys={[location.key]}>
      <Outlet />
    </ErrorBoundary>
  );
}
