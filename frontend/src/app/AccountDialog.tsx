/** One's own password, and ending every sign-in. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useForm } from "react-hook-form";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { sessionQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { ACCOUNT } from "./dialogTexts";

const FIELD = "mt-1 block min-h-11 w-full rounded-md border border-control bg-paper px-3 font-normal";

export function AccountDialog({ onClose }: { onClose: () => void }) {
  const form = useForm({ defaultValues: { current: "", new: "" } });
  const queries = useQueryClient();
  const say = useSay();
  const change = useMutation({
    mutationFn: (body: { current: string; new: string }) => data(client.PUT("/api/session/password", { body })),
    onSuccess: () => {
      say(ACCOUNT.changed);
      // What was asked under the old session meanwhile may have been told to sign in: this one goes on.
      void queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
      onClose();
    },
  });
  const leave = useMutation({
    mutationFn: () => data(client.POST("/api/session/everywhere")),
    onSuccess: () => queries.invalidateQueries({ queryKey: sessionQuery.queryKey }),
  });
  const error = change.error ?? leave.error;
  return (
    <Modal title={ACCOUNT.title} onClose={onClose} narrow>
      <form noValidate className="flex flex-col gap-4" onSubmit={(event) => void form.handleSubmit((filled) => change.mutateAsync(filled).catch(() => undefined))(event)}>
        <label className="font-bold">
          {ACCOUNT.current}
          <input type="password" {...form.register("current")} data-autofocus autoComplete="current-password" className={FIELD} />
        </label>
        <label className="font-bold">
          {ACCOUNT.next}
          <input type="password" {...form.register("new")} autoComplete="new-password" className={FIELD} />
        </label>
        {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
        <Button look="main" big type="submit" disabled={change.isPending}>
          {ACCOUNT.change}
        </Button>
      </form>
      <div className="border-t border-line pt-4">
        <p className="mb-2 text-ink-soft">{ACCOUNT.everywhereHint}</p>
        <Button big disabled={leave.isPending} onClick={() => leave.mutate()}>
          {ACCOUNT.everywhere}
        </Button>
      </div>
    </Modal>
  );
}
