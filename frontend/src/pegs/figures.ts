/** What stands on the pegs: coats, or a number for each. */
import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useMemo } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { isTyped, useLetterKeys } from "../ui/keys";
import { SHOWN } from "../filtering/filters";
import type { Board, Row, ShownAs } from "../filtering/filters";
import { CELLS } from "./texts";

type Asked = Exclude<ShownAs, "coats" | "late">;

/** What a peg says of this student and hand-in; empty where there is nothing to say. Undefined while coats are shown. */
export type Figures = ((row: Row, place: number) => string) | undefined;

export function useFigures(groupId: number, handins: Board["handins"], shown: ShownAs): Figures {
  const what: Asked | null = shown === "points" || shown === "filled" ? shown : null;
  const { data: answer } = useQuery({
    queryKey: ["group", groupId, "figures", what],
    enabled: what !== null,
    queryFn: () => data(client.GET("/api/groups/{group_id}/pegs/figures", { params: { path: { group_id: groupId }, query: { what: what ?? "points" } } })),
  });
  return useMemo(() => figuresOf(shown, answer, handins), [shown, answer, handins]);
}

function figuresOf(shown: ShownAs, answer: Schema["FiguresShape"] | undefined, handins: Board["handins"]): Figures {
  if (shown === "coats") return undefined;
  if (shown === "late") return (row, place) => lateWords(row.cells[place]);
  const places = new Map(answer?.handins.map((id, place) => [id, place]));
  const of = new Map(answer?.rows.map((one) => [one.id, one.figures]));
  return (row, place) => {
    const number = of.get(row.id)?.[places.get(handins[place]?.id ?? 0) ?? -1];
    return typeof number === "number" ? CELLS.figure[shown]({ number }) : "";
  };
}

function lateWords(cell: Row["cells"][number] | undefined): string {
  return cell?.late ? CELLS.figure.late({ days: cell.late_days }) : "";
}

/** ``v`` goes on to what the pegs show next. */
export function useNextByKey(shown: ShownAs, change: (shown: ShownAs) => void): void {
  const letters = useLetterKeys();
  useLayoutEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (letters && event.key === "v" && !isTyped(event)) change(SHOWN[(SHOWN.indexOf(shown) + 1) % SHOWN.length] ?? "coats");
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [letters, shown, change]);
}
