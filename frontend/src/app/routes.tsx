/** Addresses and their views; each view is loaded when it is first opened. */
import { createBrowserRouter } from "react-router";
import { Frame } from "./Frame";
import { Home } from "./Home";
import { Lost } from "./Lost";

export const router = createBrowserRouter([
  { path: "/card", ErrorBoundary: Lost, lazy: () => import("./CardView").then((view) => ({ Component: view.CardView })) },
  {
    path: "/",
    Component: Frame,
    ErrorBoundary: Lost,
    children: [
      { index: true, Component: Home },
      { path: "g/:group/pegs", lazy: () => import("../pegs/PegsView").then((view) => ({ Component: view.PegsView })) },
      {
        path: "g/:group/pile/:submission?",
        lazy: () => import("../pile/PileView").then((view) => ({ Component: view.PileView })),
      },
      {
        path: "g/:group/hand-ins",
        lazy: () => import("../handins/HandInsView").then((view) => ({ Component: view.HandInsView })),
      },
      {
        path: "g/:group/setup/:part?",
        lazy: () => import("../setup/SetupView").then((view) => ({ Component: view.SetupView })),
      },
      {
        path: "g/:group/template",
        lazy: () => import("../template/TemplateView").then((view) => ({ Component: view.TemplateView })),
      },
      {
        path: "g/:group/caseload",
        lazy: () => import("../caseload/CaseloadView").then((view) => ({ Component: view.CaseloadView })),
      },
      {
        path: "school",
        lazy: () => import("../setup/SchoolView").then((view) => ({ Component: view.SchoolView })),
      },
      {
        path: "g/:group/portfolio/:portfolio/:pocket?",
        lazy: () => import("../pockets/PocketsView").then((view) => ({ Component: view.PocketsView })),
      },
      ...["show", "taken-out"].map((part) => ({
        path: `g/:group/portfolio/:portfolio/${part}`,
        lazy: () => import("../pockets/PocketsView").then((view) => ({ Component: view.PocketsView })),
      })),
      {
        path: "g/:group/look/:pocket?",
        lazy: () => import("../looking/LookView").then((view) => ({ Component: view.LookView })),
      },
      {
        path: "g/:group/shows",
        lazy: () => import("../show/ShowsView").then((view) => ({ Component: view.ShowsView })),
      },
      {
        path: "g/:group/portfolio/:portfolio/page/:page",
        lazy: () => import("../pockets/PocketsView").then((view) => ({ Component: view.PocketsView })),
      },
      {
        path: "g/:group/portfolio/:portfolio/submission/:submission",
        lazy: () => import("../worklist/SubmissionView").then((view) => ({ Component: view.SubmissionView })),
      },
      {
        path: "g/:group/to-hand-in",
        lazy: () => import("../worklist/ToHandInView").then((view) => ({ Component: view.ToHandInView })),
      },
      {
        path: "g/:group/feedback",
        lazy: () => import("../worklist/FeedbackView").then((view) => ({ Component: view.FeedbackView })),
      },
      { path: "*", Component: Lost },
    ],
  },
]);
