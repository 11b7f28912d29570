/** Asking for the rows of a log over the class. */
import { infiniteQueryOptions } from "@tanstack/react-query";
import { client, data } from "../api/client";

/** Which rows of a class's log, in which order. */
export interface RowsWanted {
  period: string;
  student: number | undefined;
  words: string;
  /** A column's key, "student", or as the log stands. */
  by: string;
  descending: boolean;
}

/** A log over the class, page by page. */
export const classLogQuery = (group_id: number, pocket_id: number, wanted: RowsWanted) =>
  infiniteQueryOptions({
    queryKey: ["group", group_id, "log", pocket_id, wanted],
    queryFn: ({ pageParam }) => data(client.GET("/api/groups/{group_id}/logs/{pocket_id}", { params: { path: { group_id, pocket_id }, query: { ...wanted, first: pageParam } } })),
    initialPageParam: 0,
    getNextPageParam: (_, pages) => pages.reduce((sum, one) => sum + one.rows.length, 0),
  });
