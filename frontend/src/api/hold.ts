/** An answer that is newer than whatever is still on its way. */
import type { QueryClient, QueryKey } from "@tanstack/react-query";

/** Keep what a deed answered. A question that was asked before it, and answered after, would lay the old state over it. */
export async function hold(queries: QueryClient, key: QueryKey, value: unknown): Promise<void> {
  await queries.cancelQueries({ queryKey: key, exact: true });
  queries.setQueryData(key, value);
}
