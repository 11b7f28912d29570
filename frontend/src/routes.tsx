/** Addresses and their views; each view is loaded when it is first opened. */
import { createBrowserRouter } from "react-router";
import { patiently } from "./api/patiently";
import { Frame } from "./app/Frame";
import { Home } from "./app/Home";
import { Lost } from "./app/Lost";

export const router = createBrowserRouter([
  { path: "/card", ErrorBoundary: Lost, lazy: () => patiently(() => import("./app/CardView")).then((view) => ({ Component: view.CardView })) },
  {
    path: "/",
    Component: Frame,
    ErrorBoundary: Lost,
    children: [
     {
      // A view that breaks leaves the frame, and with it every other view, where it was.
      ErrorBoundary: Lost,
      children: [
      { index: true, Component: Home },
      { path: "g/:group/pegs", lazy: () => patiently(() => import("./pegs/PegsView")).then((view) => ({ Component: view.PegsView })) },
      {
        path: "g/:group/pile/:submission?",
        lazy: () => patiently(() => import("./pile/PileView")).then((view) => ({ Component: view.PileView })),
      },
      {
        path: "g/:group/hand-ins",
        lazy: () => patiently(() => import("./handins/HandInsView")).then((view) => ({ Component: view.HandInsView })),
      },
      {
        path: "g/:group/hand-ins/:handin/marking",
        lazy: () => patiently(() => import("./agreement/AgreementView")).then((view) => ({ Component: view.AgreementView })),
      },
      {
        path: "g/:group/setup/:part?",
        lazy: () => patiently(() => import("./setup/SetupView")).then((view) => ({ Component: view.SetupView })),
      },
      {
        path: "g/:group/template",
        lazy: () => patiently(() => import("./template/TemplateView")).then((view) => ({ Component: view.TemplateView })),
      },
      {
        path: "g/:group/caseload",
        lazy: () => patiently(() => import("./caseload/CaseloadView")).then((view) => ({ Component: view.CaseloadView })),
      },
      { path: "classes", lazy: () => patiently(() => import("./classes/ClassesView")).then((view) => ({ Component: view.ClassesView })) },
      { path: "start", lazy: () => patiently(() => import("./starting/StartView")).then((view) => ({ Component: view.StartView })) },
      {
        path: "requests",
        lazy: () => patiently(() => import("./setup/RequestsView")).then((view) => ({ Component: view.RequestsView })),
      },
      {
        path: "school",
        lazy: () => patiently(() => import("./setup/SchoolView")).then((view) => ({ Component: view.SchoolView })),
      },
      {
        path: "g/:group/portfolio/:portfolio/:pocket?",
        lazy: () => patiently(() => import("./pockets/PocketsView")).then((view) => ({ Component: view.PocketsView })),
      },
      ...["whole", "show", "taken-out"].map((part) => ({
        path: `g/:group/portfolio/:portfolio/${part}`,
        lazy: () => patiently(() => import("./pockets/PocketsView")).then((view) => ({ Component: view.PocketsView })),
      })),
      {
        path: "g/:group/look/:pocket?",
        lazy: () => patiently(() => import("./looking/LookView")).then((view) => ({ Component: view.LookView })),
      },
      {
        path: "g/:group/shows",
        lazy: () => patiently(() => import("./show/ShowsView")).then((view) => ({ Component: view.ShowsView })),
      },
      {
        path: "g/:group/portfolio/:portfolio/page/:page",
        lazy: () => patiently(() => import("./pockets/PocketsView")).then((view) => ({ Component: view.PocketsView })),
      },
      {
        path: "g/:group/portfolio/:portfolio/submission/:submission",
        lazy: () => patiently(() => import("./worklist/SubmissionView")).then((view) => ({ Component: view.SubmissionView })),
      },
      {
        path: "g/:group/to-hand-in",
        lazy: () => patiently(() => import("./worklist/ToHandInView")).then((view) => ({ Component: view.ToHandInView })),
      },
      {
        path: "g/:group/feedback",
        lazy: () => patiently(() => import("./worklist/FeedbackView")).then((view) => ({ Component: view.FeedbackView })),
      },
      { path: "*", Component: Lost },
      ],
     },
    ],
  },
]);
