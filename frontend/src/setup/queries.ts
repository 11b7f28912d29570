/** What is asked about accounts. */
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
