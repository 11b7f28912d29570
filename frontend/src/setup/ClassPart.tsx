/** What the class is called, and from when to when it runs. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { classQuery, sessionQuery } from "../api/queries";
import { freshSession } from "../api/session";
import { useLeaving } from "../app/leaving";
import { unfollowed } from "../live/live";
import { Button } from "../ui/Button";
import { dayOf, fullDay } from "../ui/dates";
import { FormDate } from "../ui/days/DateField";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { CLASS } from "./texts";

type Class = Schema["ClassShape"];
type Fields = Schema["ClassIn"];

function fieldsOf({ title, first, last }: Class): Fields {
  return { name: title, first, last };
}

interface Change {
  body: Fields;
  /** What it was before, for undo; none where this is the undo. */
  before: Fields | null;
}

/** Kept here and not with the form, which begins anew once the class is changed. */
function useChange(groupId: number) {
  const queries = useQueryClient();
  const say = useSay();
  const change = useMutation({
    mutationFn: ({ body }: Change) => data(client.PUT("/api/groups/{group_id}", { params: { path: { group_id: groupId } }, body })),
    onSuccess: async (_, { before }) => {
      if (before) say(CLASS.saved, () => change.mutate({ body: before, before: null }));
      else say(CLASS.undone);
      await Promise.all([queries.invalidateQueries({ queryKey: sessionQuery.queryKey }), queries.invalidateQueries({ queryKey: ["group", groupId] })]);
    },
  });
  return change;
}

/** Putting a class away, and bringing it back. */
function usePlace(groupId: number) {
  const queries = useQueryClient();
  const say = useSay();
  const path = { params: { path: { group_id: groupId } } };
  const place = useMutation({
    mutationFn: (away: boolean) => data(away ? client.PUT("/api/groups/{group_id}/put-away", path) : client.DELETE("/api/groups/{group_id}/put-away", path)),
    onSuccess: async (_, away) => {
      if (away) say(CLASS.isAway, () => place.mutate(false));
      else say(CLASS.isBack);
      // What one may do in it is another thing now: nothing of it is asked for before that is known.
      await freshSession(queries);
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    },
  });
  return place;
}

export function ClassPart({ groupId }: { groupId: number }) {
  const found = useQuery(classQuery(groupId));
  const change = useChange(groupId);
  const place = usePlace(groupId);
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const { title, first, last, may_change, outside, put_away: away, may_bring_back: mayBringBack } = found.data;
  const now = fieldsOf(found.data);
  return (
    <section aria-labelledby="class" className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
      <h1 id="class" className="text-xl">
        {CLASS.title}
      </h1>
      {may_change ? (
        <Form key={`${title} ${first} ${last}`} now={now} busy={change.isPending} problem={change.error} onSave={(body) => change.mutate({ body, before: now })} />
      ) : (
        <p className="text-base">{CLASS.runs({ title, first: fullDay(first), last: fullDay(last) })}</p>
      )}
      {may_change && (
        <div className="flex max-w-xl flex-wrap items-center gap-3 rounded-lg border border-edge bg-paper p-5">
          <p className="min-w-0 flex-1">{CLASS.putAwayHint}</p>
          <Button disabled={place.isPending} onClick={() => place.mutate(true)}>
            {CLASS.putAway}
          </Button>
        </div>
      )}
      {may_change && <Deleting groupId={groupId} title={title} begun={found.data.begun} />}
      {away && (
        <div className="flex max-w-xl flex-wrap items-center gap-3 rounded-md bg-today p-4">
          <p className="min-w-0 flex-1">{CLASS.awaySince({ day: dayOf(away) })}</p>
          {mayBringBack && (
            <Button look="main" disabled={place.isPending} onClick={() => place.mutate(false)}>
              {CLASS.bringBack}
            </Button>
          )}
        </div>
      )}
      {outside.length > 0 && <p className="max-w-3xl rounded-md bg-today p-3">{CLASS.outside({ titles: outside.join(", ") })}</p>}
    </section>
  );
}

/** Deleting a class in which nobody has begun: asked before, since nothing brings it back. Where somebody begins while it is asked, the question stays until it is answered. */
function Deleting({ groupId, title, begun }: { groupId: number; title: string; begun: boolean }) {
  const [asking, setAsking] = useState(false);
  const leave = useLeaving(groupId);
  const say = useSay();
  const remove = useMutation({
    mutationFn: () => unfollowed(groupId, () => data(client.DELETE("/api/groups/{group_id}", { params: { path: { group_id: groupId } } }))),
    onSuccess: async () => {
      await leave();
      say(CLASS.deleted({ title }));
    },
  });
  if (begun && !asking) return null;
  return (
    <div className="flex max-w-xl flex-wrap items-center gap-3 rounded-lg border border-edge bg-paper p-5">
      <p className="min-w-0 flex-1">{CLASS.deleteHint}</p>
      <Button onClick={() => setAsking(true)}>{CLASS.deleteIt}</Button>
      {asking && (
        <Modal title={CLASS.deleteTitle({ title })} narrow onClose={() => setAsking(false)}>
          <p>{CLASS.deleteWhat}</p>
          {remove.error instanceof Problem && <Notice title={remove.error.title} fix={remove.error.fix} />}
          <div className="flex flex-wrap justify-end gap-2">
            <Button big onClick={() => setAsking(false)}>
              {CLASS.keepIt}
            </Button>
            <Button big look="main" disabled={remove.isPending} onClick={() => remove.mutate()}>
              {CLASS.deleteNow}
            </Button>
          </div>
        </Modal>
      )}
    </div>
  );
}

function Form({ now, busy, problem, onSave }: { now: Fields; busy: boolean; problem: unknown; onSave: (body: Fields) => void }) {
  const form = useForm<Fields>({ defaultValues: now });
  return (
    <form noValidate onSubmit={(event) => void form.handleSubmit(onSave)(event)} className="flex max-w-xl flex-col gap-4 rounded-lg border border-edge bg-paper p-5">
      <label className="font-bold">
        {CLASS.name}
        <input {...form.register("name")} autoComplete="off" className="mt-1 flex min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal" />
      </label>
      <div className="grid grid-cols-2 gap-3">
        <FormDate label={CLASS.first} control={form.control} name="first" />
        <FormDate label={CLASS.last} control={form.control} name="last" />
      </div>
      <p className="text-quiet">{CLASS.hint}</p>
      {problem instanceof Problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="flex justify-end">
        <Button big look="main" type="submit" disabled={busy}>
          {CLASS.save}
        </Button>
      </div>
    </form>
  );
}
