/** Earlier moments of a page, who did what between them, and passages that were taken off it. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { RichText } from "../ui/reading/RichText";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import type { Writer } from "./session";
import { TEXTS } from "./texts";

interface Props {
  page: number;
  people: Writer[];
  lead: boolean;
  onChanged: () => void;
  onClose: () => void;
}

export function Moments({ page, people, lead, onChanged, onClose }: Props) {
  const [looked, setLooked] = useState<number | null>(null);
  const found = useQuery({
    queryKey: ["shared", page, "moments"],
    queryFn: () => data(client.GET("/api/shared/{shared_id}/moments", { params: { path: { shared_id: page } } })),
    staleTime: 0,
  });
  return (
    <Modal title={TEXTS.moments} onClose={onClose} read={looked !== null}>
      {looked !== null ? (
        <Look moment={looked} lead={lead} onBack={() => setLooked(null)} onChanged={onChanged} onClose={onClose} />
      ) : found.isPending ? (
        <Waiting />
      ) : found.isError ? (
        <Failed error={found.error} again={() => void found.refetch()} />
      ) : (
        <>
          {found.data.moments.length === 0 && <p className="text-ink-soft">{TEXTS.noMoments}</p>}
          <ul className="flex flex-col">
            {found.data.moments.map((one) => (
              <Line key={one.id} line={one} people={people} onLook={() => setLooked(one.id)} />
            ))}
          </ul>
          {found.data.taken.length > 0 && <Taken taken={found.data.taken} lead={lead} onChanged={onChanged} onClose={onClose} />}
        </>
      )}
    </Modal>
  );
}

function Line({ line, people, onLook }: { line: Schema["MomentLine"]; people: Writer[]; onLook: () => void }) {
  const name = (person: number) => people.find((one) => one.person === person)?.name ?? TEXTS.somebody;
  return (
    <li className="flex flex-wrap items-start gap-x-4 gap-y-1 border-b border-line py-2">
      <div className="min-w-0 flex-1">
        <p className="font-bold">
          {moment(line.at)} <span className="font-normal text-ink-soft">{TEXTS.momentLine({ count: line.words, number: line.words.toLocaleString() })}</span>
        </p>
        {line.by.map((one) => (
          <p key={one.person} className="text-sm text-ink-soft">
            {didOf(name(one.person), one)}
          </p>
        ))}
      </div>
      <Button big onClick={onLook}>
        {TEXTS.look}
      </Button>
    </li>
  );
}

function didOf(name: string, { added, away }: Schema["ByShape"]): string {
  const of = { name, added: added.toLocaleString(), away: away.toLocaleString() };
  if (away === 0) return TEXTS.did(of);
  return added === 0 ? TEXTS.tookAway(of) : TEXTS.letters(of);
}

function Look({ moment: id, lead, onBack, onChanged, onClose }: { moment: number; lead: boolean; onBack: () => void; onChanged: () => void; onClose: () => void }) {
  const say = useSay();
  const found = useQuery({ queryKey: ["shared", "moment", id], queryFn: () => data(client.GET("/api/moments/{moment_id}", { params: { path: { moment_id: id } } })) });
  const back = useMutation({
    mutationFn: () => data(client.POST("/api/moments/{moment_id}/restore", { params: { path: { moment_id: id } } })),
    onSuccess: () => {
      say(TEXTS.broughtBack);
      onChanged();
      onClose();
    },
    onError: (error) => say(error.message),
  });
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return (
    <>
      <div className="flex flex-wrap items-center gap-3">
        <Button big icon={<ArrowLeft aria-hidden size={16} />} onClick={onBack}>
          {TEXTS.back}
        </Button>
        <p className="min-w-0 flex-1 font-bold">{moment(found.data.at)}</p>
        {lead && (
          <Button big disabled={back.isPending} onClick={() => back.mutate()}>
            {TEXTS.bringBack}
          </Button>
        )}
      </div>
      <RichText html={found.data.html} className="reading rounded-md border border-line p-4" />
    </>
  );
}

function Taken({ taken, lead, onChanged, onClose }: { taken: Schema["TakenShape"][]; lead: boolean; onChanged: () => void; onClose: () => void }) {
  const say = useSay();
  const put = useMutation({
    mutationFn: (id: number) => data(client.POST("/api/passages/{passage_id}/restore", { params: { path: { passage_id: id } } })),
    onSuccess: () => {
      say(TEXTS.isBack);
      onChanged();
      onClose();
    },
    onError: (error) => say(error.message),
  });
  return (
    <section className="flex flex-col gap-1">
      <h3 className="font-bold">{TEXTS.taken}</h3>
      <ul>
        {taken.map((one) => (
          <li key={one.id} className="flex flex-wrap items-start gap-3 border-b border-line py-2">
            <div className="min-w-0 flex-1">
              <p className="break-words">{one.text}</p>
              <p className="text-sm text-quiet">{TEXTS.takenBy({ name: one.by, when: moment(one.at) })}</p>
            </div>
            {lead && (
              <Button big disabled={put.isPending} onClick={() => put.mutate(one.id)}>
                {TEXTS.putBack}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
