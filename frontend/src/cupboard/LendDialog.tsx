/** The other classes in whose cupboard an item lies too. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import type { Group } from "../api/session";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import type { OpenedItem } from "./queries";
import { CUPBOARD } from "./texts";

interface Props {
  item: OpenedItem;
  group: Group;
  onClose: () => void;
}

export function LendDialog({ item, group, onClose }: Props) {
  const mine = item.lendable.map((one) => one.id);
  const before = item.lent_to.filter((one) => mine.includes(one));
  const [chosen, setChosen] = useState(before);
  const queries = useQueryClient();
  const say = useSay();
  const put = (classes: number[]) => data(client.PUT("/api/cupboard/{item_id}/lent", { params: { path: { item_id: item.id } }, body: { classes } }));
  const fresh = () => Promise.all([group.id, ...mine].map((id) => queries.invalidateQueries({ queryKey: ["group", id] })));
  const told = (classes: number[]) => CUPBOARD.lentNow({ count: classes.length });
  const lend = useMutation({
    mutationFn: put,
    onSuccess: async (_, classes) => {
      onClose();
      say(told(classes), () => void put(before).then(fresh).then(() => say(told(before))));
      await fresh();
    },
  });
  const toggle = (id: number) => setChosen(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <Modal title={CUPBOARD.lendTitle(item)} onClose={onClose} narrow>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (!lend.isPending) lend.mutate(chosen);
        }}
      >
        <p className="text-ink-soft">{CUPBOARD.lendHint}</p>
        <fieldset>
          <legend className="font-bold">{CUPBOARD.lendTo}</legend>
          <div className="max-h-72 overflow-y-auto">
            {item.lendable.map((one, at) => (
              <label key={one.id} className="flex min-h-9 items-center gap-2">
                <input type="checkbox" data-autofocus={at === 0 || undefined} className="size-4 shrink-0 accent-ink" checked={chosen.includes(one.id)} onChange={() => toggle(one.id)} />
                <span className="min-w-0 break-words">{one.title}</span>
              </label>
            ))}
          </div>
        </fieldset>
        {lend.error instanceof Problem && <Notice title={lend.error.title} fix={lend.error.fix} />}
        <div className="flex flex-wrap justify-end gap-2">
          <Button big onClick={onClose}>
            {CUPBOARD.cancel}
          </Button>
          <Button big look="main" type="submit" disabled={lend.isPending}>
            {CUPBOARD.lendNow}
          </Button>
        </div>
      </form>
    </Modal>
  );
}
