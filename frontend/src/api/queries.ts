/** Every read of the server, by name; what belongs to a class is keyed ``["group", id, …]`` so that news of it reach all. */
import { queryOptions } from "@tanstack/react-query";
import { readBoard } from "./board";
import type { Board } from "./board";
import { client, data } from "./client";

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: () => data(client.GET("/api/session")),
  staleTime: Infinity,
});

/** All classes of a member of staff. */
export const classesQuery = queryOptions({
  queryKey: ["classes"],
  queryFn: () => data(client.GET("/api/classes")),
});

export const boardQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "board"],
    queryFn: ({ client: queries, queryKey }) => readBoard(group_id, queries.getQueryData<Board>(queryKey)),
  });

/** Filters of the pegs that are kept. */
export const filtersQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "filters"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/filters", { params: { path: { group_id } } })),
  });

/** When work comes, who is usually late, how far each is; of some students, or of everybody. */
export const patternsQuery = (group_id: number, students: number[] | null) =>
  queryOptions({
    queryKey: ["group", group_id, "patterns", students],
    queryFn: () => data(client.POST("/api/groups/{group_id}/patterns", { params: { path: { group_id } }, body: { students } })),
    placeholderData: (old) => old,
  });

/** Over all classes of its students, which are not followed: asked again after a while. */
export const loadQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "load"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/load", { params: { path: { group_id } } })),
    staleTime: 300_000,
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

/** When a student was reminded of a hand-in. */
export const remindersQuery = (group_id: number, handin_id: number, enrolment_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "reminders", handin_id, enrolment_id],
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins/{handin_id}/students/{enrolment_id}/reminders", { params: { path: { group_id, handin_id, enrolment_id } } })),
  });

export const pileQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "pile"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/pile", { params: { path: { group_id } } })),
  });

/** What was said to all whom a hand-in is asked of. */
export const classNotesQuery = (group_id: number, handin_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "class-notes", handin_id],
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins/{handin_id}/class-notes", { params: { path: { group_id, handin_id } } })),
  });

/** The same as a student reads it, on all that is asked of them. */
export const ownClassNotesQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "class-notes", "of", portfolio_id],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/class-notes", { params: { path: { portfolio_id } } })),
  });

/** What a student began with, beside what they handed in. */
export const givenQuery = (group_id: number, submission_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "given", submission_id],
    queryFn: () => data(client.GET("/api/submissions/{submission_id}/given", { params: { path: { submission_id } } })),
  });

/** The same over all classes that one marks in: no class is followed for it, so it is asked for again by itself. */
export const wholePileQuery = queryOptions({
  queryKey: ["pile"],
  queryFn: () => data(client.GET("/api/pile")),
  refetchInterval: 30_000,
  staleTime: 0,
});

/** What one says often in a class, with how often it was said in a hand-in. */
export const phrasesQuery = (group_id: number, handin: number) =>
  queryOptions({
    queryKey: ["group", group_id, "phrases", handin],
    queryFn: () => data(client.GET("/api/groups/{group_id}/phrases", { params: { path: { group_id }, query: { handin } } })),
  });

export const handinsQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "handins"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins", { params: { path: { group_id } } })),
  });

/** A hand-in as it was filled in. */
export const handinPlanQuery = (group_id: number, handin_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "handin", handin_id],
    retry: false,
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins/{handin_id}", { params: { path: { group_id, handin_id } } })),
  });

/** A new hand-in like another one, laid out for a class. */
export const handinLikeQuery = (group_id: number, handin_id: number) =>
  queryOptions({
    queryKey: ["handin-like", group_id, handin_id],
    retry: false,
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins/like/{handin_id}", { params: { path: { group_id, handin_id } } })),
  });

export const rosterQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "roster"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/roster", { params: { path: { group_id } } })),
  });

/** What changed a class's list, newest first. */
export const listChangesQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "list-changes"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/roster/changes", { params: { path: { group_id } } })),
  });

/** Requests for students that wait for this person's word. */
export const joinRequestsQuery = queryOptions({
  queryKey: ["join-requests"],
  queryFn: () => data(client.GET("/api/join-requests")),
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
    queryFn: ({ signal }) => data(client.GET("/api/pages/{page_id}", { params: { path: { page_id } }, signal })),
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

export const classQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "class"],
    queryFn: () => data(client.GET("/api/groups/{group_id}", { params: { path: { group_id } } })),
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

/** What a class can begin with. */
export const startQuery = queryOptions({
  queryKey: ["start", "choices"],
  queryFn: () => data(client.GET("/api/start")),
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

/** What changed in a submission since the one before. */
export const changesQuery = (group_id: number, submission_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "submission", submission_id, "changes"],
    queryFn: () => data(client.GET("/api/submissions/{submission_id}/changes", { params: { path: { submission_id } } })),
    // Both are frozen.
    staleTime: Infinity,
  });

/** All that happened to a student's hand-in. */
export const historyOfHandInQuery = (group_id: number, handin_id: number, enrolment_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "history", handin_id, enrolment_id],
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins/{handin_id}/students/{enrolment_id}/history", { params: { path: { group_id, handin_id, enrolment_id } } })),
  });

/** Rubrics to begin from. */
export const rubricsQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "rubrics"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/rubrics", { params: { path: { group_id } } })),
    staleTime: 60_000,
  });

/** How a hand-in is marked, and how far its markers agree. */
export const howMarkedQuery = (group_id: number, handin_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "marking", handin_id],
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins/{handin_id}/marking", { params: { path: { group_id, handin_id } } })),
  });

/** A sample of a hand-in's marked work; the same by the same number. */
export const sampleQuery = (group_id: number, handin_id: number, size: number, seed: number) =>
  queryOptions({
    queryKey: ["group", group_id, "marking", handin_id, "sample", size, seed],
    queryFn: () => data(client.GET("/api/groups/{group_id}/handins/{handin_id}/sample", { params: { path: { group_id, handin_id }, query: { size, seed } } })),
  });

/** What is said on a submission. */
export const annotationsQuery = (group_id: number, submission_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "annotations", submission_id],
    queryFn: () => data(client.GET("/api/submissions/{submission_id}/annotations", { params: { path: { submission_id } } })),
  });

/** What is said on all that stands of a student's submissions. */
export const annotationsOnWorkQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "annotations", "portfolio", portfolio_id],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/annotations", { params: { path: { portfolio_id } } })),
  });

/** What staff noted on a student for themselves. */
export const staffNotesQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "staff-notes", portfolio_id],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/staff-notes", { params: { path: { portfolio_id } } })),
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

export type TextKind = "evidence" | "page" | "text";

/** The history of a text, newest first. */
export const historyQuery = (kind: TextKind, id: number) =>
  queryOptions({
    queryKey: ["history", kind, id],
    staleTime: 0,
    queryFn: () => {
      if (kind === "evidence") return data(client.GET("/api/evidence/{evidence_id}/history", { params: { path: { evidence_id: id } } }));
      if (kind === "page") return data(client.GET("/api/pages/{page_id}/history", { params: { path: { page_id: id } } }));
      return data(client.GET("/api/texts/{artefact_id}/history", { params: { path: { artefact_id: id } } }));
    },
  });

/** A revision, with what changed since another one. */
export const revisionQuery = (revision_id: number, since: number | null) =>
  queryOptions({
    queryKey: ["revision", revision_id, since],
    queryFn: () => data(client.GET("/api/revisions/{revision_id}", { params: { path: { revision_id }, query: since === null ? {} : { since } } })),
  });

/** Every artefact of a portfolio, with the pockets it lies in. */
export const artefactsQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolio", portfolio_id, "artefacts"],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/artefacts", { params: { path: { portfolio_id } } })),
  });

/** What was taken out and can be brought back. */
export const takenOutQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolio", portfolio_id, "taken-out"],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/taken-out", { params: { path: { portfolio_id } } })),
  });

/** A student's show page. */
export const showQuery = (group_id: number, portfolio_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolio", portfolio_id, "show"],
    queryFn: () => data(client.GET("/api/portfolios/{portfolio_id}/show", { params: { path: { portfolio_id } } })),
  });

/** The show pages that are open to the class. */
export const showsQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "shows"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/shows", { params: { path: { group_id } } })),
  });

/** What is new to whoever is signed in; looked for once a minute, over all their classes. */
export const noticesQuery = queryOptions({
  queryKey: ["notices"],
  queryFn: () => data(client.GET("/api/notices")),
  refetchInterval: 60_000,
});

/** Which mail was sent, newest first. */
export const mailsQuery = queryOptions({
  queryKey: ["mails"],
  queryFn: () => data(client.GET("/api/mails")),
});

/** One mail. */
export const mailQuery = (mail_id: number) =>
  queryOptions({
    queryKey: ["mails", mail_id],
    queryFn: () => data(client.GET("/api/mails/{mail_id}", { params: { path: { mail_id } } })),
  });

/** The portfolios of a class by name. */
export const portfoliosQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "portfolios"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/portfolios", { params: { path: { group_id } } })),
  });

/** One pocket over the class. */
export const gridQuery = (group_id: number, pocket_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "grid", pocket_id],
    queryFn: () => data(client.GET("/api/groups/{group_id}/pockets/{pocket_id}", { params: { path: { group_id, pocket_id } } })),
  });

/** The pages of their own of all students of a class. */
export const ownPagesQuery = (group_id: number) =>
  queryOptions({
    queryKey: ["group", group_id, "grid", "own"],
    queryFn: () => data(client.GET("/api/groups/{group_id}/own-pages", { params: { path: { group_id } } })),
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
