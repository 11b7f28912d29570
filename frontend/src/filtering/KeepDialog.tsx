/** A name for the filter that is on. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { filtersQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { KEPT } from "./filterTexts";

export function KeepDialog({ groupId, address, onClose }: { groupId: number; address: string; onClose: () => void }) {
  const queries = useQueryClient();
  const say = useSay();
  const [name, setName] = useState("");
  const [shared, setShared] = useState(false);
  const keep = useMutation({
    mutationFn: () => data(client.POST("/api/groups/{group_id}/filters", { params: { path: { group_id: groupId } }, body: { name, address, shared } })),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: filtersQuery(groupId).queryKey });
      say(KEPT.kept(made));
      onClose();
    },
  });
  return (
    <Modal narrow title={KEPT.keepTitle} onClose={onClose}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        <label className="font-bold">
          {KEPT.name}
          <input data-autofocus value={name} onChange={(event) => setName(event.target.value)} aria-describedby="kept-hint" className="mt-1 block min-h-11 w-full rounded-md border border-control bg-paper px-3 font-normal" />
        </label>
        <p id="kept-hint" className="-mt-3 text-quiet">
          {KEPT.nameHint}
        </p>
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" checked={shared} onChange={(event) => setShared(event.target.checked)} />
          {KEPT.share}
        </label>
        {keep.error instanceof Problem && <Notice title={keep.error.title} fix={keep.error.fix} />}
        <div className="flex flex-wrap justify-end gap-2">
          <Button big onClick={onClose}>
            {KEPT.cancel}
          </Button>
          <Button big look="main" type="submit" aria-disabled={keep.isPending}>
            {KEPT.keepIt}
          </Button>
        </div>
      </form>
    </Modal>
  );
}
