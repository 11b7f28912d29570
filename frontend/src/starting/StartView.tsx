/** Starting a class on one page: its days, what it is like, its staff and its list; beside it, how it will be. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import type { UseQueryResult } from "@tanstack/react-query";
import type { UseFormReturn } from "react-hook-form";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { sessionQuery, startQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { isDay } from "../ui/days/parseDay";
import { Foot } from "../ui/Foot";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { useSettled } from "../ui/useSettled";
import { Failed, Waiting } from "../ui/Waiting";
import { useKeptForm } from "../writing/useBack";
import { Beginning } from "./Beginning";
import { emptyFields, lookBody, missing, startBody } from "./fields";
import type { Choices, Fields } from "./fields";
import { ListPart } from "./ListPart";
import { NamePart } from "./NamePart";
import { StaffPart } from "./StaffPart";
import { TemplatePart } from "./TemplatePart";
import { TEXTS } from "./texts";

export function StartView() {
  const choices = useQuery(startQuery);
  if (choices.isPending) return <Waiting />;
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  return <Start choices={choices.data} />;
}

/** How the class would begin, as the server finds by trying. */
function useLook(fields: Fields, choices: Choices) {
  const body = lookBody(fields, choices);
  // Its name changes nothing of how it begins.
  const settled = useSettled({ ...body, name: "" });
  const asked = settled.kind !== "caseload" && (settled.like !== null || settled.outline.trim() !== "");
  return useQuery({
    queryKey: ["start", "look", settled],
    enabled: asked && isDay(settled.first) && isDay(settled.last),
    placeholderData: (old: Schema["LookedShape"] | undefined) => (asked ? old : undefined),
    queryFn: () => data(client.POST("/api/start/look", { body: settled })),
  });
}

/** The list as it was read, and what it would do. */
function useList(fields: Fields) {
  const settled = useSettled({ text: fields.list, columns: fields.columns, as_new: fields.asNew, family_first: fields.familyFirst });
  return useQuery({
    queryKey: ["start", "list", settled],
    enabled: settled.text.trim() !== "" && fields.kind !== "caseload",
    placeholderData: (old: Schema["LookedListShape"] | undefined) => old,
    queryFn: () => data(client.POST("/api/start/list", { body: settled })),
  });
}

/** What the list does is looked at before it is done, also by whoever pressed before it was shown; null where it cannot be read. */
async function seenOf(list: UseQueryResult<Schema["LookedListShape"]>): Promise<string | null> {
  const found = list.isPlaceholderData || !list.data ? (await list.refetch()).data : list.data;
  return found?.seen ?? null;
}

function useStart(drop: () => void) {
  const queries = useQueryClient();
  const say = useSay();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: (body: Schema["GroupIn"]) => data(client.POST("/api/groups", { body })),
    onSuccess: async (made, { lead, students }) => {
      drop();
      await queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
      await queries.invalidateQueries({ queryKey: startQuery.queryKey });
      if (lead) {
        say(TEXTS.startedFor({ name: made.title }));
        await navigate("/");
        return;
      }
      say(TEXTS.started({ name: made.title, students: made.students, pockets: made.pockets, handins: made.handins }));
      await navigate(students ? `/g/${made.id}/pegs` : `/g/${made.id}/setup/list`);
    },
  });
}

function Start({ choices }: { choices: Choices }) {
  const form = useForm<Fields>({ defaultValues: emptyFields(choices) });
  const drop = useKeptForm("start-class", form);
  const fields = useWatch({ control: form.control }) as Fields;
  const [tried, setTried] = useState(false);
  const box = useRef<HTMLFormElement>(null);
  const look = useLook(fields, choices);
  const list = useList(fields);
  const start = useStart(drop);
  const wrong = missing(fields, look.data?.problems ?? []);
  const submit = async () => {
    setTried(true);
    if (wrong.length > 0) {
      box.current?.querySelector<HTMLElement>("[aria-invalid=true], input[name=name]")?.focus();
      return;
    }
    const seen = fields.list.trim() ? await seenOf(list) : null;
    if (!fields.list.trim() || seen !== null) start.mutate(startBody(fields, choices, seen));
  };
  const caseload = fields.kind === "caseload";
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto low:flex-none">
      <form
        ref={box}
        noValidate
        aria-labelledby="start-class"
        className="flex min-h-0 w-[600px] shrink-0 flex-col border-r border-line bg-paper max-lg:w-full max-lg:flex-none max-lg:border-r-0"
        onSubmit={(event) => {
          event.preventDefault();
          if (!start.isPending) void submit();
        }}
      >
        <div className="flex min-h-0 flex-1 flex-col gap-6 overflow-y-auto p-5 max-lg:overflow-visible low:overflow-visible">
          <div>
            <h1 id="start-class" className="text-xl">
              {TEXTS.title}
            </h1>
            <p className="mt-1 text-ink-soft">{TEXTS.intro}</p>
          </div>
          <NamePart form={form} fields={fields} choices={choices} tried={tried} />
          {!caseload && <Parts form={form} fields={fields} choices={choices} list={list.data} listError={list.error} />}
        </div>
        <Foot className="max-lg:sticky max-lg:bottom-0 low:static">
          {tried && wrong.length > 0 && (
            <Notice title={TEXTS.toMend}>
              <ul className="list-disc pl-5">
                {wrong.map((one) => (
                  <li key={one}>{one}</li>
                ))}
              </ul>
            </Notice>
          )}
          {start.error instanceof Problem && <Notice title={start.error.title} fix={start.error.fix} />}
          <div className="flex justify-end">
            <Button big look="main" type="submit" disabled={start.isPending}>
              {start.isPending ? TEXTS.starting : TEXTS.startIt}
            </Button>
          </div>
        </Foot>
      </form>
      {!caseload && <Beginning look={look.data} error={look.error} />}
    </div>
  );
}

interface PartsProps {
  form: UseFormReturn<Fields>;
  fields: Fields;
  choices: Choices;
  list: Schema["LookedListShape"] | undefined;
  listError: unknown;
}

/** What can be left for later. */
function Parts({ form, fields, choices, list, listError }: PartsProps) {
  return (
    <>
      <TemplatePart form={form} fields={fields} choices={choices} />
      <StaffPart form={form} fields={fields} />
      <ListPart form={form} fields={fields} found={fields.list.trim() ? list : undefined} error={fields.list.trim() ? listError : null} />
    </>
  );
}
