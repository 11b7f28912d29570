/** A hand-in that is new, like another one, or changed; as it is filled in it shows who will get it, or what the change means. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useEffect, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { isProblem } from "../api/client";
import { Problem } from "../api/problem";
import { handinLikeQuery, handinPlanQuery } from "../api/queries";
import { usePersonId } from "../api/session";
import { useUndo } from "../live/useUndo";
import { Button } from "../ui/Button";
import { Foot } from "../ui/Foot";
import { newKey } from "../ui/newKey";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { keepDraft } from "../writing/drafts";
import { useBack } from "../writing/useBack";
import { useDraft } from "../writing/useDraft";
import { HandInFields } from "./HandInFields";
import { Meanwhile } from "./Meanwhile";
import { fieldsOf, firstFields, planOf } from "./plan";
import type { Fields } from "./plan";
import { CHANGE, DRAFT, SERIES, TEXTS } from "./texts";
import { WhoGetsIt } from "./WhoGetsIt";

type Data = Schema["HandInsShape"];
type Plan = Schema["PlanShape"];

/** What the form begins with: nothing, another hand-in, or the one that it changes. */
export type From = { what: "new"; /** The pocket that it begins with; 0 for none. */ pocket: number } | { what: "like" | "change"; id: number };

interface Props {
  data: Data;
  groupId: number;
  from: From;
  onClose: () => void;
}

export function HandInPanel({ data, groupId, from, onClose }: Props) {
  const title = from.what === "change" ? CHANGE.title : TEXTS.newHandIn;
  return (
    <aside aria-labelledby="new-handin" className="flex w-[420px] shrink-0 flex-col rounded-lg border border-edge bg-paper max-lg:w-full lg:overflow-y-auto">
      <div className="flex items-center justify-between px-5 pt-4">
        <h2 id="new-handin" className="text-lg">
          {title}
        </h2>
        <button type="button" aria-label={TEXTS.closeTheForm} onClick={onClose} className="-m-2 p-2">
          <X aria-hidden size={18} />
        </button>
      </div>
      {from.what === "new" && <Form data={data} groupId={groupId} changing={null} first={firstFields(data, from.pocket)} onClose={onClose} />}
      {from.what === "like" && <Like key={from.id} data={data} groupId={groupId} id={from.id} onClose={onClose} />}
      {from.what === "change" && <Change key={from.id} data={data} groupId={groupId} id={from.id} onClose={onClose} />}
    </aside>
  );
}

type Loaded = Omit<Props, "from"> & { id: number };

function Like({ id, ...rest }: Loaded) {
  const plan = useQuery(handinLikeQuery(rest.groupId, id));
  if (plan.isPending) return <Waiting />;
  if (plan.isError) return <Failed error={plan.error} again={() => void plan.refetch()} />;
  return <Form {...rest} changing={null} first={fieldsOf(plan.data, rest.data)} />;
}

function Change({ id, ...rest }: Loaded) {
  const plan = useQuery(handinPlanQuery(rest.groupId, id));
  if (plan.isPending) return <Waiting />;
  if (plan.isError) return <Failed error={plan.error} again={() => void plan.refetch()} />;
  return <Form {...rest} changing={plan.data} first={fieldsOf(plan.data, rest.data)} />;
}

interface FormProps extends Omit<Props, "from"> {
  /** The hand-in as it is now; null for a new one. */
  changing: Plan | null;
  first: Fields;
}

// eslint-disable-next-line complexity -- new or changed, touched or not, changed by others or not
function Form({ data, groupId, changing, first, onClose }: FormProps) {
  // What is filled in is filled in over this; what others save meanwhile is shown beside it.
  const [base, setBase] = useState({ plan: changing, fields: first });
  const form = useForm<Fields>({ defaultValues: first });
  const fields = useWatch({ control: form.control }) as Fields;
  const changed = JSON.stringify(fields) !== JSON.stringify(base.fields);
  const version = base.plan?.version ?? 0;
  const draft = changing ? `hand-in/${groupId}/${changing.id}` : `hand-in/${groupId}`;
  const drop = useDraft(draft, fields, version, changed, useBack(form, version));
  // It may have opened below what was looked at: the keyboard goes on in it, and it comes into view.
  const { setFocus, reset } = form;
  useEffect(() => setFocus("title"), [setFocus]);
  const unchanged = changing !== null && !changed;
  const moved = changing !== null && changing.version !== version;
  const takeTheirs = () => {
    setBase({ plan: changing, fields: first });
    reset(first);
  };
  const set = useSetting(groupId, draft, base, drop, onClose);
  const isDraft = Boolean(changing?.draft);
  const keepAsDraft = () => void form.handleSubmit((filled) => set.mutateAsync({ filled, draft: true }).catch(() => undefined))();
  return (
    <form
      noValidate
      onSubmit={(event) => void form.handleSubmit((filled) => set.mutateAsync({ filled, draft: false }).catch(() => undefined))(event)}
      className="flex flex-1 flex-col gap-4 px-5 pt-3"
    >
      <HandInFields data={data} form={form} series={changing} />
      <Foot className="sticky bottom-0 low:static -mx-5 mt-auto rounded-b-lg">
        {/* It scrolls by itself, so the keyboard must reach it. */}
        {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
        <div tabIndex={0} className="max-h-44 overflow-y-auto">
          {unchanged && !isDraft ? <p className="text-quiet">{CHANGE.hint}</p> : <WhoGetsIt fields={fields} groupId={groupId} changing={changing?.id ?? null} />}
        </div>
        {moved && <Meanwhile theirs={first} mine={changed ? fields : null} data={data} onTheirs={takeTheirs} onMine={() => setBase({ plan: changing, fields: first })} />}
        <Refused error={set.error} />
        <div className="flex justify-end gap-2">
          <Button className="min-h-9" onClick={onClose}>
            {TEXTS.cancel}
          </Button>
          {(isDraft || !changing) && fields.every === "0" && (
            <Button className="min-h-9" disabled={set.isPending || moved || unchanged} onClick={keepAsDraft}>
              {DRAFT.keep}
            </Button>
          )}
          <Button look="main" className="min-h-9" type="submit" disabled={set.isPending || moved || (unchanged && !isDraft)}>
            {changing && !isDraft ? CHANGE.save : TEXTS.setTheHandIn}
          </Button>
        </div>
      </Foot>
    </form>
  );
}

/** Why it was not set. That somebody else was quicker is shown with what they changed. */
function Refused({ error }: { error: Error | null }) {
  if (!(error instanceof Problem) || error.kind === "stale") return null;
  return <Notice title={error.title} fix={error.fix} />;
}

/** What is said of a hand-in that was changed; a draft may have been set by it. */
function savedWords(title: string, was: boolean, is: boolean): string {
  if (is) return DRAFT.kept({ title });
  return was ? TEXTS.titleIsSetItHangs({ title }) : CHANGE.saved({ title });
}

/** Setting a new hand-in, or saving a changed one; each can be undone from the message. */
function useSetting(groupId: number, draft: string, base: { plan: Plan | null; fields: Fields }, drop: () => void, onClose: () => void) {
  // Pressed twice, or sent again after a lost answer, it is one hand-in.
  const [key] = useState(newKey);
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndo(groupId);
  const person = usePersonId();
  const takeBack = async (made: Schema["SetShape"], filled: Fields) => {
    if (made.series) await answer(client.DELETE("/api/groups/{group_id}/series/{name}", { params: { path: { group_id: groupId, name: made.series } } }));
    else await answer(client.DELETE("/api/groups/{group_id}/handins/{handin_id}", { params: { path: { group_id: groupId, handin_id: made.id } } }));
    await keepDraft(person, draft, { text: JSON.stringify(filled), base: 0 });
  };
  const put = (handin_id: number, filled: Fields, version: number, scope: Fields["scope"], asDraft: boolean) =>
    answer(client.PUT("/api/groups/{group_id}/handins/{handin_id}", { params: { path: { group_id: groupId, handin_id } }, body: { ...planOf(filled, asDraft), version, scope } }));
  return useMutation({
    mutationFn: async ({ filled, draft: asDraft }: { filled: Fields; draft: boolean }) => {
      const { plan, fields } = base;
      if (plan) {
        const made = await put(plan.id, filled, plan.version, filled.scope, asDraft);
        const left = made.left.length > 0 ? ` ${SERIES.left({ titles: made.left.join(", ") })}` : "";
        const back = () => put(plan.id, fields, made.version, filled.scope, plan.draft);
        return { said: savedWords(made.title, plan.draft, asDraft) + left, back, undone: CHANGE.undone({ title: plan.title }) };
      }
      const path = { params: { path: { group_id: groupId } } };
      const made = await answer(client.POST("/api/groups/{group_id}/handins", { ...path, body: { ...planOf(filled, asDraft), key } }));
      const said = asDraft ? DRAFT.kept({ title: made.title }) : made.series ? SERIES.set({ count: made.count, title: made.title }) : TEXTS.titleIsSetItHangs({ title: made.title });
      return { said, back: () => takeBack(made, filled), undone: TEXTS.titleIsTakenBackIts({ title: made.title }) };
    },
    onSuccess: async ({ said, back, undone }) => {
      drop();
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      say(said, undo(back, undone));
      onClose();
    },
    // Somebody else was quicker: what it says now is shown beside what was filled in.
    onError: (error) => (isProblem(error, "stale") ? queries.invalidateQueries({ queryKey: ["group", groupId, "handin"] }) : undefined),
  });
}
