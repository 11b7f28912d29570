/** Requests of other classes for students whom one may let in: each is confirmed or declined by a click. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { joinRequestsQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { moment, shortDay } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { REQUESTS } from "./texts";
import { TEXTS } from "./texts";

type Request = Schema["JoinRequestShape"];

export function RequestsView() {
  const found = useQuery(joinRequestsQuery);
  const queries = useQueryClient();
  const say = useSay();
  const settle = useMutation({
    mutationFn: ({ one, confirm }: { one: Request; confirm: boolean }) =>
      data(client.POST("/api/join-requests/{request_id}", { params: { path: { request_id: one.id } }, body: { confirm } })),
    onSuccess: (_, { one, confirm }) => say(confirm ? TEXTS.nameIsInIntoNow({ name: one.name, into: one.into }) : TEXTS.nameStaysOutOfInto({ name: one.name, into: one.into })),
    onSettled: () => queries.invalidateQueries({ queryKey: joinRequestsQuery.queryKey }),
  });
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return (
    <section aria-labelledby="requests" className="mx-auto flex w-full max-w-3xl flex-col gap-4 p-5">
      <h1 id="requests" className="text-xl">
        {REQUESTS.title}
      </h1>
      <p className="text-ink-soft">{REQUESTS.hint}</p>
      {settle.error instanceof Problem && <Notice title={settle.error.title} fix={settle.error.fix} />}
      {found.data.length === 0 && <p className="text-base">{REQUESTS.none}</p>}
      <ul className="flex flex-col gap-3">
        {found.data.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-3 rounded-lg border border-edge bg-paper p-4">
            <div className="min-w-0 flex-1 basis-72">
              <p className="text-base break-words">
                {REQUESTS.nameInto({ name: <strong key="name">{one.name}</strong>, into: <strong key="into">{one.into}</strong>, caseload: one.kind === "caseload" })}
              </p>
              <p className="text-quiet">
                {TEXTS.askedByAskedAskedAt({ asked_by: one.asked_by, asked_at: moment(one.asked_at), lapses: shortDay(one.lapses) })}
              </p>
            </div>
            <div className="flex gap-2">
              <Button className="min-h-9" disabled={settle.isPending} onClick={() => settle.mutate({ one, confirm: true })}>
                {REQUESTS.confirm}
                <span className="sr-only"> {one.name}</span>
              </Button>
              <Button className="min-h-9" disabled={settle.isPending} onClick={() => settle.mutate({ one, confirm: false })}>
                {REQUESTS.decline}
                <span className="sr-only"> {one.name}</span>
              </Button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
