/** The button for taking along what is shown. */
import { Download } from "lucide-react";
import { patiently } from "../api/patiently";
import { Later } from "../ui/OnFirstUse";
import type { Board, Row } from "../filtering/filters";
import { TEXTS } from "./texts";

export interface Props {
  board: Board;
  rows: Row[];
  groupId: number;
  name: string;
  /** Whether the scores are shown: they are what goes along. */
  scores: boolean;
}

const load = () => patiently(() => import("./AlongMenu")).then((found) => found.AlongMenu);
const FACE = { label: TEXTS.takeAlong, className: "flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 hover:border-control", content: <Download aria-hidden size={16} /> };

export function TakeAlong(props: Props) {
  return <Later kind="Actions" load={load} face={FACE} {...props} />;
}
