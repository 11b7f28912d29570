/** Telling the server that one looks into a portfolio; since when things are new to whoever looks. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, data } from "../api/client";
import { useGroup } from "../api/session";

export function useLook(groupId: number, portfolio: number) {
  const queries = useQueryClient();
  const group = useGroup();
  const own = group?.portfolio === portfolio;
  const [only, setOnly] = useState(false);
  const { mutate, data: told } = useMutation({
    mutationFn: () => data(client.POST("/api/portfolios/{portfolio_id}/look", { params: { path: { portfolio_id: portfolio } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["group", groupId, "portfolios"] }),
  });
  useEffect(() => {
    if (!own) mutate();
  }, [mutate, own, portfolio]);
  return { since: own ? null : (told?.since ?? null), only, setOnly };
}
