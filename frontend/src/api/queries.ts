/** Every read of the server, by name; what belongs to a class is keyed ``["group", id, …]`` so that news of it reach all. */
import { queryOptions } from "@tanstack/react-query";
import { client, data } from "./client";

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: () => data(client.GET("/api/session")),
  staleTime: Infinity,
});

export const boardQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "board"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/pegs", { params: { path: { group_id } } })),
  });

export const cellQuery = (group_id: number, handin_id: number, enrolment_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "cell", handin_id, enrolment_id],
    queryFn: () =>
      data(
        client.GET("/api/groups/{group_id}/handins/{handin_id}/students/{enrolment_id}", {
          params: { path: { group_id, handin_id, enrolment_id } },
        }),
      ),
  });

export const pileQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "pile"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/pile", { params: { path: { group_id } } })),
  });

export const handinsQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "handins"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins", { params: { path: { group_id } } })),
  });

export const rosterQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "roster"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/roster", { params: { path: { group_id } } })),
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

/** What a student is asked for, and what not. */
export const askedQuery = (group_id: number, enrolment_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "asked", enrolment_id],
    queryFn: () => data(client.GET("/api/groups/{group_id}/students/{enrolment_id}/asked", { params: { path: { group_id, enrolment_id } } })),
  });

/** A loose page of a student. */
export const pageQuery = (group_id: number, page_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolio", "page", page_id],
    retry: false,
    queryFn: () => data(client.GET("/api/pages/{page_id}", { params: { path: { page_id } } })),
  });

export const staffQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "staff"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/staff", { params: { path: { group_id } } })),
  });

export const calendarQuery = queryOptions({
  queryKey: ["calendar"],
  queryFn: () => data(client.GET("/api/calendar")),
});

export const caseloadQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "caseload"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/caseload", { params: { path: { group_id } } })),
  });

export const templateQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "template"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/template", { params: { path: { group_id } } })),
  });

export const galleryStateQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "gallery"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/template/gallery", { params: { path: { group_id } } })),
  });

export const galleryQuery = (text: string) =>
  queryOptions({
    queryKey: ["gallery", text],
    queryFn: () => data(client.GET("/api/gallery", { params: { query: { text } } })),
  });

export const feedQuery = queryOptions({
  queryKey: ["feed"],
  queryFn: () => data(client.GET("/api/feed")),
  staleTime: Infinity,
});

export const accountsQuery = queryOptions({
  queryKey: ["accounts"],
  queryFn: () => data(client.GET("/api/accounts")),
});

export const submissionQuery = (group_id: number, submission_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "submission", submission_id],
    queryFn: () => data(client.GET("/api/submissions/{submission_id}", { params: { path: { submission_id } } })),
  });

export const portfolioQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolio", portfolio_id],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}", { params: { path: { portfolio_id } } })),
  });

export const pocketQuery = (group_id: number, portfolio_id: number, pocket_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolio", portfolio_id, "pocket", pocket_id],
    queryFn: () =>
      data(
        client.GET("/api/portfolios/{portfolio_id}/pockets/{pocket_id}", {
          params: { path: { portfolio_id, pocket_id } },
        }),
      ),
  });

export const worklistQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolio", portfolio_id, "worklist"],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/worklist", { params: { path: { portfolio_id } } })),
  });

export const feedbackQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolio", portfolio_id, "feedback"],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/feedback", { params: { path: { portfolio_id } } })),
  });
