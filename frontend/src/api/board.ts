/** The board as it is read: every different cell once, and each student's as places among these. */
import { client, data } from "./client";
import type { Schema } from "./client";

export type Cell = Schema["CellShape"];
export type Row = Omit<Schema["RowShape"], "cells"> & { cells: Cell[] };
export type Board = Omit<Schema["BoardShape"], "students" | "states"> & {
  students: Row[];
  /** What the server calls the board as it stands: named again, it is sent only where it changed. */
  tag: string | null;
};

function unpacked(sent: Schema["BoardShape"], tag: string | null): Board {
  const { states, students, ...rest } = sent;
  const cellsOf = (places: number[]) => places.flatMap((place) => states[place] ?? []);
  return { ...rest, tag, students: students.map((row) => ({ ...row, cells: cellsOf(row.cells) })) };
}

/** Read the board of a class; ``held`` is what the page has of it already. */
export async function readBoard(group_id: number, held: Board | undefined): Promise<Board> {
  const answer = await client.GET("/api/groups/{group_id}/pegs", {
    params: { path: { group_id } },
    headers: held?.tag ? { "If-None-Match": held.tag } : {},
  });
  if (answer.response.status === 304 && held) return held;
  return unpacked(await data(Promise.resolve(answer)), answer.response.headers.get("ETag"));
}
