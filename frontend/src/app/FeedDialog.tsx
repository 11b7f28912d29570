/** A person's calendar address: made, shown once, made void. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { hold } from "../api/hold";
import { feedQuery } from "../api/queries";
import { Modal } from "../ui/Modal";
import { Button } from "../ui/Button";
import { dayOf } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { DIALOGS } from "./dialogTexts";

export function FeedDialog({ onClose }: { onClose: () => void }) {
  const kept = useQuery(feedQuery);
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: () => data(client.POST("/api/feed")),
    onSuccess: (made) => hold(queries, feedQuery.queryKey, made),
  });
  const revoke = useMutation({
    mutationFn: () => data(client.DELETE("/api/feed")),
    onSuccess: () => hold(queries, feedQuery.queryKey, { address: null, since: null }),
  });
  const error = make.error ?? revoke.error;
  const address = kept.data?.address;
  const since = kept.data?.since;
  return (
    <Modal title={DIALOGS.dueDatesInYourOwn} onClose={onClose} narrow>
          <p>{DIALOGS.aCalendarProgramThatSubscribes}</p>
          {address && (
            <label className="font-bold">
              {DIALOGS.yourAddressShownThisOnce}
              <input readOnly value={address} onFocus={(event) => event.target.select()} className="mt-1 block min-h-11 w-full rounded-md border border-control bg-ground px-3 text-sm font-normal" />
            </label>
          )}
          {!address && since && <p>{DIALOGS.youMadeAnAddressOn({ since: dayOf(since) })}</p>}
          {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
          <div className="flex flex-wrap gap-2">
            <Button look="main" big disabled={make.isPending} onClick={() => make.mutate()}>
              {since ? DIALOGS.makeANewOne : DIALOGS.makeAnAddress}
            </Button>
            {since && (
              <Button big disabled={revoke.isPending} onClick={() => revoke.mutate()}>
                {DIALOGS.endIt}
              </Button>
            )}
          </div>
    </Modal>
  );
}
