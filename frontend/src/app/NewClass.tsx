/** Starting a class: its name and its days; the person who starts it is its lead. */
import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useForm } from "react-hook-form";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { sessionQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useReturnFocus } from "../ui/useReturnFocus";
import { useSession } from "./session";

const FIELD = "mt-1 block min-h-10 w-full rounded-md border border-control bg-paper px-3 font-normal";
type Kind = "class" | "cohort" | "caseload";

export function NewClass({ open, onClose }: { open: boolean; onClose: () => void }) {
  useReturnFocus();
  const session = useSession();
  const form = useForm({ defaultValues: { name: "", kind: "class" as Kind, first: session.today, last: "" } });
  const queries = useQueryClient();
  const navigate = useNavigate();
  const start = useMutation({
    mutationFn: (body: { name: string; kind: Kind; first: string; last: string }) => data(client.POST("/api/groups", { body })),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
      onClose();
      await navigate(`/g/${made.id}/setup/list`);
    },
  });
  return (
    <Dialog open={open} onClose={onClose} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-ink/40" />
      <div className="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel className="w-full max-w-md rounded-lg bg-paper p-6 text-ink shadow-lg">
          <form
            noValidate
            className="flex flex-col gap-4"
            onSubmit={(event) => void form.handleSubmit((filled) => start.mutateAsync(filled).catch(() => undefined))(event)}
          >
            <DialogTitle className="text-xl">Start a class</DialogTitle>
            <label className="font-bold">
              Name
              <input {...form.register("name")} autoComplete="off" className={FIELD} />
            </label>
            <label className="font-bold">
              It is a
              <select {...form.register("kind")} className={FIELD}>
                <option value="class">class</option>
                <option value="cohort">year group</option>
                {session.person?.administrator && <option value="caseload">caseload</option>}
              </select>
            </label>
            <div className="grid grid-cols-2 gap-3">
              <label className="font-bold">
                First day
                <input type="date" {...form.register("first")} className={FIELD} />
              </label>
              <label className="font-bold">
                Last day
                <input type="date" {...form.register("last")} className={FIELD} />
              </label>
            </div>
            {start.error instanceof Problem && <Notice title={start.error.title} fix={start.error.fix} />}
            <div className="flex justify-end gap-2">
              <Button className="min-h-10" onClick={onClose}>
                Cancel
              </Button>
              <Button look="main" type="submit" className="min-h-10" disabled={start.isPending}>
                Start the class
              </Button>
            </div>
          </form>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
