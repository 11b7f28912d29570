/** A page: one text in a pocket. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { usePersonId, useSession } from "../app/session";
import { Reflection } from "../ui/Reflection";
import { WritingField } from "./WritingField";

interface Props {
  pocket: Schema["OpenedPocket"];
  groupId: number;
  portfolio: number;
  mine: boolean;
}

export function PagePocket({ pocket, groupId, portfolio, mine }: Props) {
  const queries = useQueryClient();
  const person = usePersonId();
  const { text_limit: limit } = useSession();
  const save = useCallback(
    async (text: string, version: number) => {
      const saved = await data(
        client.PUT("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/page", {
          params: { path: { portfolio_id: portfolio, pocket_id: pocket.id } },
          body: { text, version },
          keepalive: text.length < 15_000,
        }),
      );
      await queries.invalidateQueries({ queryKey: ["group", groupId, "portfolio"] });
      return saved;
    },
    [groupId, pocket.id, portfolio, queries],
  );
  const page = pocket.evidence[0];
  return (
    <div className="rounded-lg border border-edge bg-paper p-4">
      {mine ? (
        <WritingField
          name={`page/${portfolio}/${pocket.id}`}
          person={person}
          label={pocket.prompt || pocket.title}
          server={page ?? { text: pocket.starter, version: 0 }}
          writable={pocket.writable}
          length={pocket}
          limit={limit}
          rows={8}
          save={save}
        />
      ) : (
        <Reflection text={page?.text ?? ""} title={pocket.prompt || pocket.title} />
      )}
    </div>
  );
}
