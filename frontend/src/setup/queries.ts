/** What is asked about accounts, and about how lists come. */
import { queryOptions } from "@tanstack/react-query";
import { client, data } from "../api/client";

/** Accounts that were put together. */
export const togetherQuery = queryOptions({
  queryKey: ["accounts", "together"],
  queryFn: () => data(client.GET("/api/accounts/together")),
});

/** Students' accounts by a part of a name, user name or number. */
export const studentAccountsQuery = (text: string) =>
  queryOptions({
    queryKey: ["accounts", "students", text],
    enabled: text.length > 1,
    queryFn: () => data(client.GET("/api/accounts/students", { params: { query: { text } } })),
  });

/** Lists that came through the roster folder. */
export const dropsQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "drops"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/roster/drops", { params: { path: { group_id } } })),
  });

/** One of them, as a table. Applying it is its end, so it is not asked for again with the class. */
export const dropQuery = (group_id: number, drop_id: number) =>
  queryOptions({
    queryKey: ["drop", group_id, drop_id],
    retry: false,
    queryFn: () => data(client.GET("/api/groups/{group_id}/roster/drops/{drop_id}", { params: { path: { group_id, drop_id } } })),
  });

/** Sets of groups of a class. */
export const groupSetsQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "sets"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/sets", { params: { path: { group_id } } })),
  });

/** What a class has asked for and waits. */
export const ownRequestsQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "requests"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/roster/requests", { params: { path: { group_id } } })),
  });
