/** Starting a class: its name and its days; the person who starts it is its lead. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useForm, useWatch } from "react-hook-form";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { accountsQuery, sessionQuery } from "../api/queries";
import { Modal } from "../ui/Modal";
import { Button } from "../ui/Button";
import { FormDate } from "../ui/days/DateField";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSession } from "../api/session";
import { useKeptForm } from "../writing/useBack";
import { DIALOGS } from "./dialogTexts";
import { TEXTS } from "./texts";

const FIELD = "mt-1 flex min-h-10 w-full rounded-md border border-control bg-paper px-3 font-normal";
type Kind = "class" | "cohort" | "caseload";
interface Filled {
  name: string;
  kind: Kind;
  first: string;
  last: string;
  lead: string;
}

export function NewClass({ open, onClose }: { open: boolean; onClose: () => void }) {
  const session = useSession();
  const form = useForm({ defaultValues: { name: "", kind: "class" as Kind, first: session.today, last: "", lead: "" } });
  const queries = useQueryClient();
  const say = useSay();
  const navigate = useNavigate();
  const start = useMutation({
    mutationFn: ({ lead, ...body }: Filled) => data(client.POST("/api/groups", { body: { ...body, lead: Number(lead) || null } })),
    onSuccess: async (made, { lead, name }) => {
      drop();
      await queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
      onClose();
      if (lead) say(DIALOGS.nameIsStartedItsLead({ name }));
      else await navigate(`/g/${made.id}/setup/list`);
    },
  });
  const drop = useKeptForm("new-class", form);
  const kind = useWatch({ control: form.control, name: "kind" });
  const named = kind === "caseload";
  const staff = useQuery({ ...accountsQuery, enabled: named });
  if (!open) return null;
  return (
    <Modal title={TEXTS.newClass} onClose={onClose} narrow>
          <form
            noValidate
            className="flex flex-col gap-4"
            onSubmit={(event) => void form.handleSubmit((filled) => start.mutateAsync({ ...filled, lead: named ? filled.lead : "" }).catch(() => undefined))(event)}
          >
            <label className="font-bold">
              {DIALOGS.name2}
              <input {...form.register("name")} data-autofocus autoComplete="off" className={FIELD} />
            </label>
            <label className="font-bold">
              {DIALOGS.itIsA}
              <select {...form.register("kind")} className={FIELD}>
                <option value="class">{DIALOGS.class}</option>
                <option value="cohort">{DIALOGS.yearGroup}</option>
                {session.person?.administrator && <option value="caseload">{DIALOGS.caseload}</option>}
              </select>
            </label>
            {named && (
              <label className="font-bold">
                {DIALOGS.itsLeadWhoSeesThe}
                <select {...form.register("lead")} className={FIELD}>
                  <option value="">{DIALOGS.chooseSomebody}</option>
                  {staff.data
                    ?.filter((one) => one.active && one.person !== session.person?.id)
                    .map((one) => (
                      <option key={one.person} value={one.person}>
                        {one.name}
                      </option>
                    ))}
                </select>
              </label>
            )}
            <div className="grid grid-cols-2 gap-3">
              <FormDate label={DIALOGS.firstDay} control={form.control} name="first" />
              <FormDate label={DIALOGS.lastDay} control={form.control} name="last" />
            </div>
            {start.error instanceof Problem && <Notice title={start.error.title} fix={start.error.fix} />}
            <div className="flex justify-end gap-2">
              <Button className="min-h-10" onClick={onClose}>
                {DIALOGS.cancel}
              </Button>
              <Button look="main" type="submit" className="min-h-10" disabled={start.isPending}>
                {DIALOGS.startTheClass}
              </Button>
            </div>
          </form>
    </Modal>
  );
}
