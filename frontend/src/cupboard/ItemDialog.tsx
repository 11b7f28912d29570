/** A page or link that is put in, or any item that is changed: what it says, where it stands, who sees it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useId, useRef, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import type { UseFormReturn } from "react-hook-form";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { may } from "../api/session";
import type { Group } from "../api/session";
import { upload } from "../api/upload";
import { Button } from "../ui/Button";
import { FormDate } from "../ui/days/DateField";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { RichField } from "../writing/rich/RichField";
import { useDraft } from "../writing/useDraft";
import { cupboardQuery } from "./queries";
import type { Item, OpenedItem } from "./queries";
import { setDrawer } from "./store";
import { CUPBOARD } from "./texts";

interface Props {
  group: Group;
  kind: Item["kind"];
  /** None: it is put in now. */
  item: OpenedItem | null;
  periods: Schema["Named"][];
  headings: string[];
  onClose: () => void;
}

/** What is done with it next: it is looked at, or given out. */
type Next = "look" | "give";

interface Fields {
  title: string;
  heading: string;
  html: string;
  link: string;
  who: "now" | "from" | "staff";
  opens: string;
  periods: number[];
  groups: number[];
}

const EMPTY: Fields = { title: "", heading: "", html: "", link: "", who: "now", opens: "", periods: [], groups: [] };

function fieldsOf(item: OpenedItem | null): Fields {
  if (!item) return EMPTY;
  const { title, heading, html, link, periods, groups } = item;
  return { title, heading, html, link, periods, groups, opens: item.opens ?? "", who: item.staff_only ? "staff" : item.opens ? "from" : "now" };
}

/** The form, kept until it is saved, and saving it. */
function useItemForm({ group, kind, item, onClose }: Props) {
  const [first] = useState(() => fieldsOf(item));
  const [version, setVersion] = useState(item?.version ?? 0);
  const form = useForm<Fields>({ defaultValues: first });
  const fields = useWatch({ control: form.control }) as Fields;
  const [file, setFile] = useState<File | null>(null);
  const changed = JSON.stringify(fields) !== JSON.stringify(first);
  const name = item ? `cupboard/${item.id}` : `cupboard/${group.id}/${kind}`;
  const drop = useDraft(name, fields, version, changed, (kept, base) => {
    form.reset(kept, { keepDefaultValues: true });
    setVersion(base);
  });
  const queries = useQueryClient();
  const say = useSay();
  const save = useMutation({
    mutationFn: (next: Next) => send(group.id, kind, item, next === "give" ? { ...fields, who: "staff" } : fields, version, file),
    onSuccess: async (made, next) => {
      drop();
      onClose();
      setDrawer({ open: true, item: made.id, give: next === "give" });
      say(CUPBOARD.saved(made));
      await queries.invalidateQueries({ queryKey: ["group", group.id] });
    },
    onError: (error) => {
      // Somebody else was quicker: the same pressed once more goes over what stands there now.
      const theirs = error instanceof Problem ? error.more["version"] : undefined;
      if (typeof theirs === "number") setVersion(theirs);
    },
  });
  return { form, file, setFile, save };
}

export function ItemDialog(props: Props) {
  const { group, kind, item, periods, headings, onClose } = props;
  const { form, file, setFile, save } = useItemForm(props);
  const { lent_from: lent, copies } = item ?? { lent_from: "", copies: 0 };
  const title = item ? CUPBOARD.changeTitle(item) : kind === "page" ? CUPBOARD.newPage : CUPBOARD.newLink;
  return (
    <Modal title={title} onClose={onClose} wide={kind === "page"}>
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (!save.isPending) save.mutate("look");
        }}
      >
        <Named form={form} headings={headings} lent={lent} />
        {!lent && <Inside kind={kind} form={form} groupId={group.id} file={file} onFile={setFile} />}
        <WhoSees form={form} groupId={group.id} periods={periods} />
        {copies > 0 && !lent && <p className="text-sm text-ink-soft">{CUPBOARD.renews}</p>}
        {save.error instanceof Problem && <Notice title={save.error.title} fix={save.error.fix} />}
        <div className="flex flex-wrap justify-end gap-2">
          <Button big onClick={onClose}>
            {CUPBOARD.cancel}
          </Button>
          <Ends is={item ? "there" : may(group, "give_out") ? "given" : "new"} busy={save.isPending} onGive={() => save.mutate("give")} />
        </div>
      </form>
    </Modal>
  );
}

async function send(groupId: number, kind: Item["kind"], item: OpenedItem | null, fields: Fields, version: number, file: File | null): Promise<{ id: number; title: string }> {
  const body = {
    title: fields.title,
    heading: fields.heading,
    html: fields.html,
    link: fields.link,
    staff_only: fields.who === "staff",
    opens: fields.who === "from" && fields.opens ? fields.opens : null,
    periods: fields.periods,
    groups: fields.groups,
  };
  if (!item) return data(client.POST("/api/groups/{group_id}/cupboard", { params: { path: { group_id: groupId } }, body: { ...body, kind: kind === "link" ? "link" : "page" } }));
  const now = file ? (await upload<Item>(`/api/cupboard/${item.id}/newer`, file, { version: String(version) })).version : version;
  return data(client.PUT("/api/cupboard/{item_id}", { params: { path: { item_id: item.id } }, body: { ...body, version: now } }));
}

function Named({ form, headings, lent }: { form: UseFormReturn<Fields>; headings: string[]; lent: string }) {
  const id = useId();
  const field = "mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal";
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <label className="font-bold">
        {CUPBOARD.name}
        {/* eslint-disable-next-line jsx-a11y/no-autofocus -- the dialog was opened to fill it */}
        <input type="text" autoFocus readOnly={lent !== ""} autoComplete="off" {...form.register("title")} className={`${field} read-only:bg-ground`} />
        {lent && <span className="mt-1 block font-normal text-ink-soft">{CUPBOARD.lentHint({ from: lent })}</span>}
      </label>
      <label className="font-bold">
        {CUPBOARD.heading} <span className="font-normal text-quiet">{CUPBOARD.headingHint}</span>
        <input type="text" autoComplete="off" list={id} {...form.register("heading")} className={field} />
        <datalist id={id}>
          {headings.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      </label>
    </div>
  );
}

/** How the form ends: what is new can be given out at once. */
function Ends({ is, busy, onGive }: { is: "there" | "given" | "new"; busy: boolean; onGive: () => void }) {
  return (
    <>
      {is === "given" && (
        <Button big disabled={busy} title={CUPBOARD.putAndGiveHint} onClick={onGive}>
          {CUPBOARD.putAndGive}
        </Button>
      )}
      <Button big look="main" type="submit" disabled={busy}>
        {is === "there" ? CUPBOARD.save : CUPBOARD.put}
      </Button>
    </>
  );
}

/** What is in it. */
function Inside({ kind, form, groupId, file, onFile }: { kind: Item["kind"]; form: UseFormReturn<Fields>; groupId: number; file: File | null; onFile: (file: File | null) => void }) {
  if (kind === "page") return <RichField label={CUPBOARD.words} name="html" control={form.control} may pageIn={groupId} />;
  if (kind === "file") return <NewerFile file={file} onFile={onFile} />;
  if (kind === "log" || kind === "pocket") return <p className="text-ink-soft">{CUPBOARD.layoutIs}</p>;
  return (
    <label className="font-bold">
      {CUPBOARD.address}
      <input type="url" autoComplete="off" {...form.register("link")} className="mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal" />
    </label>
  );
}

function NewerFile({ file, onFile }: { file: File | null; onFile: (file: File | null) => void }) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <div className="flex flex-wrap items-center gap-3">
      <input ref={chooser} type="file" hidden aria-label={CUPBOARD.newerFile} onChange={(event) => onFile(event.target.files?.[0] ?? null)} />
      <Button onClick={() => chooser.current?.click()}>{CUPBOARD.newerFile}</Button>
      {file && <span className="min-w-0 break-words text-ink-soft">{CUPBOARD.chosenFile({ name: file.name })}</span>}
    </div>
  );
}

/** To whom it is shown. */
function WhoSees({ form, groupId, periods }: { form: UseFormReturn<Fields>; groupId: number; periods: Schema["Named"][] }) {
  const who = useWatch({ control: form.control, name: "who" });
  const groups = useQuery(cupboardQuery(groupId)).data?.groups ?? [];
  const ways = [
    ["now", CUPBOARD.seeNow],
    ["from", CUPBOARD.seeFrom],
    ["staff", CUPBOARD.seeStaff],
  ] as const;
  return (
    <div className="flex flex-wrap gap-x-10 gap-y-3">
      <fieldset>
        <legend className="font-bold">{CUPBOARD.whoSees}</legend>
        {ways.map(([value, words]) => (
          <label key={value} className="flex min-h-8 items-center gap-2">
            <input type="radio" value={value} className="size-4 accent-ink" checked={who === value} onChange={() => form.setValue("who", value)} />
            {words}
          </label>
        ))}
        {who === "from" && <FormDate control={form.control} name="opens" label={CUPBOARD.from} row loadOf={groupId} />}
      </fieldset>
      {who !== "staff" && (periods.length > 1 || groups.length > 0) && (
        <fieldset>
          <legend className="font-bold">
            {CUPBOARD.onlyPeriods} <span className="font-normal text-quiet">{CUPBOARD.allPeriods}</span>
          </legend>
          <div className="flex max-h-48 flex-wrap gap-x-6 overflow-y-auto">
            <Some form={form} name="periods" of={periods} />
            <Some form={form} name="groups" of={groups} />
          </div>
        </fieldset>
      )}
    </div>
  );
}

/** Some periods or groups, ticked. */
function Some({ form, name, of }: { form: UseFormReturn<Fields>; name: "periods" | "groups"; of: Schema["Named"][] }) {
  const chosen = useWatch({ control: form.control, name });
  const toggle = (id: number) => form.setValue(name, chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
  return (
    <div>
      {of.map((one) => (
        <label key={one.id} className="flex min-h-8 items-center gap-2">
          <input type="checkbox" className="size-4 accent-ink" checked={chosen.includes(one.id)} onChange={() => toggle(one.id)} />
          {one.title}
        </label>
      ))}
    </div>
  );
}
