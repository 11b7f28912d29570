/** Addresses and their views; each view is loaded when it is first opened. */
import { matchRoutes } from "react-router";
import { patiently } from "./api/patiently";
import { opened } from "./app/opened";
import type { Opened } from "./app/opened";

export const CARD = opened(() => patiently(() => import("./app/CardView")).then((view) => view.CardView));
const PEGS = opened(() => patiently(() => import("./pegs/PegsView")).then((view) => view.PegsView));
const PILE = opened(() => patiently(() => import("./pile/PileView")).then((view) => view.PileView));
const HANDINS = opened(() => patiently(() => import("./handins/HandInsView")).then((view) => view.HandInsView));
const AGREEMENT = opened(() => patiently(() => import("./agreement/AgreementView")).then((view) => view.AgreementView));
const SETUP = opened(() => patiently(() => import("./setup/SetupView")).then((view) => view.SetupView));
const TEMPLATE = opened(() => patiently(() => import("./template/TemplateView")).then((view) => view.TemplateView));
const CASELOAD = opened(() => patiently(() => import("./caseload/CaseloadView")).then((view) => view.CaseloadView));
const CLASSES = opened(() => patiently(() => import("./classes/ClassesView")).then((view) => view.ClassesView));
const START = opened(() => patiently(() => import("./starting/StartView")).then((view) => view.StartView));
const REQUESTS = opened(() => patiently(() => import("./setup/RequestsView")).then((view) => view.RequestsView));
const SCHOOL = opened(() => patiently(() => import("./setup/SchoolView")).then((view) => view.SchoolView));
const POCKETS = opened(() => patiently(() => import("./pockets/PocketsView")).then((view) => view.PocketsView));
const LOOK = opened(() => patiently(() => import("./looking/LookView")).then((view) => view.LookView));
const SHOWS = opened(() => patiently(() => import("./show/ShowsView")).then((view) => view.ShowsView));
const SUBMISSION = opened(() => patiently(() => import("./worklist/SubmissionView")).then((view) => view.SubmissionView));
const TO_HAND_IN = opened(() => patiently(() => import("./worklist/ToHandInView")).then((view) => view.ToHandInView));
const FEEDBACK = opened(() => patiently(() => import("./worklist/FeedbackView")).then((view) => view.FeedbackView));

/** The addresses inside the frame. What several share is one view: it stays as it is from one to the other. */
export const PLACES: [path: string, of: Opened][] = [
  ["g/:group/pegs", PEGS],
  ["g/:group/pile/:submission?", PILE],
  ["g/:group/hand-ins", HANDINS],
  ["g/:group/hand-ins/:handin/marking", AGREEMENT],
  ["g/:group/setup/:part?", SETUP],
  ["g/:group/template", TEMPLATE],
  ["g/:group/caseload", CASELOAD],
  ["classes", CLASSES],
  ["start", START],
  ["requests", REQUESTS],
  ["school", SCHOOL],
  ["g/:group/portfolio/:portfolio/:pocket?", POCKETS],
  ["g/:group/portfolio/:portfolio/whole", POCKETS],
  ["g/:group/portfolio/:portfolio/show", POCKETS],
  ["g/:group/portfolio/:portfolio/taken-out", POCKETS],
  ["g/:group/portfolio/:portfolio/page/:page", POCKETS],
  ["g/:group/portfolio/:portfolio/submission/:submission", SUBMISSION],
  ["g/:group/look/:pocket?", LOOK],
  ["g/:group/shows", SHOWS],
  ["g/:group/to-hand-in", TO_HAND_IN],
  ["g/:group/feedback", FEEDBACK],
];

const MATCHED = [["card", CARD] as const, ...PLACES].map(([path, handle]) => ({ path, handle }));

/** The view of an address, if it has one. */
export function viewAt(pathname: string): Opened | null {
  return matchRoutes(MATCHED, pathname)?.at(-1)?.route.handle ?? null;
}
