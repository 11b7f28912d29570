/** The school's accounts: the staff's, with adding; a student's by name; closing; a new password is shown once. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { KeyRound, Plus } from "lucide-react";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { accountsQuery } from "../api/queries";
import { studentAccountsQuery } from "./queries";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSettled } from "../ui/useSettled";
import { Failed, Waiting } from "../ui/Waiting";
import { useKeptForm } from "../writing/useBack";
import { FirstPassword } from "./FirstPassword";
import { PutTogether } from "./TogetherDialog";
import { ACCOUNTS, TOGETHER } from "./texts";
import { TEXTS } from "./texts";

type Account = Schema["AccountShape"];
type Fresh = Schema["NewAccountShape"];

export function AccountsPart() {
  const found = useQuery(accountsQuery);
  const queries = useQueryClient();
  const [fresh, setFresh] = useState<Fresh | null>(null);
  const reload = () => queries.invalidateQueries({ queryKey: accountsQuery.queryKey });
  const [text, setText] = useState("");
  const [together, setTogether] = useState<Account | null>(null);
  const wanted = useSettled(text.trim());
  const students = useQuery(studentAccountsQuery(wanted));
  const password = useMutation({
    mutationFn: (person_id: number) => data(client.POST("/api/accounts/{person_id}/password", { params: { path: { person_id } } })),
    onSuccess: setFresh,
  });
  const active = useMutation({
    mutationFn: (one: Account) => data(client.PUT("/api/accounts/{person_id}/active", { params: { path: { person_id: one.person } }, body: { active: !one.active } })),
    onSuccess: reload,
  });
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const error = active.error ?? password.error;
  const ofStudents = wanted.length > 1;
  const shown = ofStudents ? (students.data ?? []) : found.data;
  return (
    <section aria-labelledby="accounts" className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
      <h1 id="accounts" className="text-xl">
        {ACCOUNTS.title}
      </h1>
      {error instanceof Problem && <Notice title={error.title} fix={error.fix} />}
      {fresh && <FirstPassword made={fresh} onClose={() => setFresh(null)} />}
      <Add
        onMade={(made) => {
          setFresh(made);
          void reload();
        }}
      />
      <label className="flex max-w-4xl flex-wrap items-center gap-2 font-bold">
        {ACCOUNTS.find}
        <input value={text} onChange={(event) => setText(event.target.value)} autoComplete="off" className="min-h-9 w-72 max-w-full rounded-md border border-control bg-paper px-3 font-normal" />
        <span className="font-normal text-quiet">{ACCOUNTS.findHint}</span>
      </label>
      {students.data?.length === 0 && <p>{ACCOUNTS.nobody}</p>}
      <ul className="max-w-4xl divide-y divide-line rounded-lg border border-edge bg-paper">
        {shown.map((one) => (
          <Line key={one.person} one={one} onTogether={ofStudents ? () => setTogether(one) : undefined} busy={password.isPending || active.isPending} onPassword={() => password.mutate(one.person)} onActive={() => active.mutate(one)} />
        ))}
      </ul>
      <PutTogether kept={together} shown={shown} onClose={() => setTogether(null)} />
    </section>
  );
}

interface LineProps {
  one: Account;
  /** Of a student's account. */
  onTogether: (() => void) | undefined;
  busy: boolean;
  onPassword: () => void;
  onActive: () => void;
}

function Line({ one, onTogether, busy, onPassword, onActive }: LineProps) {
  return (
    <li className={`flex flex-wrap items-center gap-3 px-4 py-2 ${one.active ? "" : "text-quiet"}`}>
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">
          {one.name}
          {one.administrator && <span className="font-normal text-quiet">{" "}{TEXTS.administrator}</span>}
          {!one.active && <span className="font-normal">{" "}{TEXTS.closed}</span>}
        </span>
        <span className="block truncate text-quiet">{[one.username, one.email, one.classes.join(", ")].filter(Boolean).join(" · ")}</span>
      </span>
      {onTogether && (
        <Button disabled={busy} onClick={onTogether}>
          {TOGETHER.open}
          <span className="sr-only"> {TOGETHER.ofName({ name: one.name })}</span>
        </Button>
      )}
      <Button icon={<KeyRound aria-hidden size={16} />} disabled={busy} onClick={onPassword}>
        {TEXTS.password}<span className="sr-only">{" "}{TEXTS.forName({ name: one.name })}</span>
      </Button>
      <Button disabled={busy} onClick={onActive}>
        {one.active ? TEXTS.close : TEXTS.openAgain}
        <span className="sr-only">{" "}{TEXTS.theAccountOfName({ name: one.name })}</span>
      </Button>
    </li>
  );
}

const FIELD = "mt-1 block min-h-9 w-full rounded-md border border-control bg-paper px-3 font-normal";

function Add({ onMade }: { onMade: (made: Fresh) => void }) {
  const form = useForm({ defaultValues: { given: "", family: "", email: "", administrator: false } });
  const drop = useKeptForm("new-account", form);
  const add = useMutation({
    mutationFn: (filled: Schema["AccountIn"]) => data(client.POST("/api/accounts", { body: filled })),
    onSuccess: (made) => {
      drop();
      onMade(made);
      form.reset();
    },
  });
  return (
    <form
      noValidate
      aria-label={TEXTS.aNewStaffAccount}
      onSubmit={(event) => void form.handleSubmit((filled) => add.mutateAsync(filled).catch(() => undefined))(event)}
      className="grid max-w-4xl grid-cols-[1fr_1fr_1.4fr_auto] items-end gap-3 rounded-lg border border-edge bg-paper p-4 max-lg:grid-cols-2"
    >
      <label className="font-bold">
        {TEXTS.givenName2}
        <input {...form.register("given")} autoComplete="off" className={FIELD} />
      </label>
      <label className="font-bold">
        {TEXTS.familyName2}
        <input {...form.register("family")} autoComplete="off" className={FIELD} />
      </label>
      <label className="font-bold">
        {TEXTS.eMail}{" "}<span className="font-normal text-quiet">{TEXTS.mayStayEmpty}</span>
        <input {...form.register("email")} type="email" autoComplete="off" className={FIELD} />
      </label>
      <Button look="main" type="submit" className="min-h-9" icon={<Plus aria-hidden size={16} />} disabled={add.isPending}>
        {TEXTS.addTheAccount}
      </Button>
      {add.error instanceof Problem && (
        <div className="col-span-full">
          <Notice title={add.error.title} fix={add.error.fix} />
        </div>
      )}
    </form>
  );
}
