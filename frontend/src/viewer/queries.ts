/** What is asked about how a file is shown. */
import { queryOptions } from "@tanstack/react-query";
import { client, data } from "../api/client";

export type Of = "artefacts" | "given-files" | "cupboard";

/** How far the viewer of a file is; asked again while it is being made. */
export const viewQuery = ({ of, id }: { of: Of; id: number }) =>
  queryOptions({
    queryKey: ["view", of, id],
    queryFn: () =>
      of === "artefacts"
        ? data(client.GET("/api/artefacts/{artefact_id}/view", { params: { path: { artefact_id: id } } }))
        : of === "cupboard"
          ? data(client.GET("/api/cupboard/{item_id}/view", { params: { path: { item_id: id } } }))
          : data(client.GET("/api/given-files/{file_id}/view", { params: { path: { file_id: id } } })),
    refetchInterval: (query) => (query.state.data?.state === "waiting" ? 1000 : false),
    staleTime: 60_000,
  });

/** What the viewer shows of a file. */
export const viewDocumentQuery = ({ of, id }: { of: Of; id: number }) =>
  queryOptions({
    queryKey: ["view", of, id, "document"],
    queryFn: () =>
      of === "artefacts"
        ? data(client.GET("/api/artefacts/{artefact_id}/view/document", { params: { path: { artefact_id: id } } }))
        : of === "cupboard"
          ? data(client.GET("/api/cupboard/{item_id}/view/document", { params: { path: { item_id: id } } }))
          : data(client.GET("/api/given-files/{file_id}/view/document", { params: { path: { file_id: id } } })),
    staleTime: Infinity,
  });
