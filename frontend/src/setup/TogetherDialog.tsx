/** Two accounts that turn out to be one student's: which one stays, what that means, done and undone. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { togetherQuery } from "./queries";
import { Button } from "../ui/Button";
import { dayOf } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { TOGETHER } from "./texts";

type Account = Schema["AccountShape"];

/** An account by name, user name and classes. */
function called({ name, username, classes }: Account): string {
  return [name, username, classes.join(", ")].filter(Boolean).join(" · ");
}

function TogetherDialog({ kept, others, onClose }: { kept: Account; others: Account[]; onClose: () => void }) {
  const [other, setOther] = useState(others[0]?.person ?? 0);
  const queries = useQueryClient();
  const say = useSay();
  const body = { kept: kept.person, other };
  const look = useQuery({
    queryKey: ["look-together", body],
    enabled: other > 0,
    queryFn: () => data(client.POST("/api/accounts/together/look", { body })),
  });
  const apart = useApart();
  const put = useMutation({
    mutationFn: () => data(client.POST("/api/accounts/together", { body })),
    onSuccess: async ({ id }) => {
      onClose();
      await queries.invalidateQueries({ queryKey: ["accounts"] });
      say(TOGETHER.done({ name: kept.name }), () => apart.mutate(id));
    },
  });
  const error = put.error ?? look.error;
  return (
    <Modal title={TOGETHER.title} onClose={onClose}>
      {others.length === 0 ? (
        <p>{TOGETHER.findBoth}</p>
      ) : (
        <form
          noValidate
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            put.mutate();
          }}
        >
          <p>
            <span className="font-bold">{TOGETHER.stays}</span> {called(kept)}
          </p>
          <label className="font-bold">
            {TOGETHER.closes}
            <select value={other} onChange={(event) => setOther(Number(event.target.value))} className="mt-1 flex min-h-9 items-center w-full rounded-md border border-control bg-paper px-2 font-normal">
              {others.map((one) => (
                <option key={one.person} value={one.person}>
                  {called(one)}
                </option>
              ))}
            </select>
          </label>
          {look.data && <Meaning means={look.data} />}
          <p>{TOGETHER.what}</p>
          {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
          <div className="flex justify-end gap-2">
            <Button big onClick={onClose}>
              {TOGETHER.keep}
            </Button>
            <Button big look="main" type="submit" disabled={!look.data || put.isPending}>
              {TOGETHER.put}
            </Button>
          </div>
        </form>
      )}
    </Modal>
  );
}

function Meaning({ means: { moved, ended, both, locked, handed_in } }: { means: Schema["TogetherMeaning"] }) {
  const said = [
    moved.length > 0 && TOGETHER.moved({ classes: moved.join(", ") }),
    ended.length > 0 && TOGETHER.ended({ classes: ended.join(", ") }),
    both.length > 0 && TOGETHER.both({ classes: both.join(", ") }),
    locked.length > 0 && TOGETHER.locked({ pockets: locked.join(", ") }),
    handed_in.length > 0 && TOGETHER.handedIn({ handins: handed_in.join(", ") }),
  ].filter((one) => one !== false);
  return (
    <div role="status" className="flex flex-col gap-1">
      {(said.length > 0 ? said : [TOGETHER.noClass]).map((one) => (
        <p key={one}>{one}</p>
      ))}
    </div>
  );
}

function useApart() {
  const queries = useQueryClient();
  const say = useSay();
  return useMutation({
    mutationFn: (together_id: number) => data(client.DELETE("/api/accounts/together/{together_id}", { params: { path: { together_id } } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["accounts"] });
      say(TOGETHER.apart);
    },
  });
}

/** Putting an account together with another one of those shown; and what was put together, to be taken apart any day. */
export function PutTogether({ kept, shown, onClose }: { kept: Account | null; shown: Account[]; onClose: () => void }) {
  return (
    <>
      {kept && <TogetherDialog kept={kept} others={shown.filter((one) => one.person !== kept.person)} onClose={onClose} />}
      <Standing />
    </>
  );
}

function Standing() {
  const found = useQuery(togetherQuery);
  const apart = useApart();
  if (!found.data?.length) return null;
  return (
    <section aria-labelledby="together" className="max-w-4xl">
      <h2 id="together" className="mb-2 text-base">
        {TOGETHER.list}
      </h2>
      {apart.error instanceof Problem && <Notice title={apart.error.title} fix={apart.error.fix} />}
      <ul className="divide-y divide-line rounded-lg border border-edge bg-paper">
        {found.data.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-3 px-4 py-2">
            <span className="min-w-0 flex-1">
              <span className="block font-semibold break-words">
                {one.kept} <span className="font-normal text-quiet">{one.username}</span>
              </span>
              <span className="block text-quiet">{TOGETHER.with({ other: one.other, username: one.other_username, by: one.by, day: dayOf(one.at) })}</span>
            </span>
            <Button disabled={apart.isPending} onClick={() => apart.mutate(one.id)}>
              {TOGETHER.takeApart}
              <span className="sr-only"> {one.kept}</span>
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
