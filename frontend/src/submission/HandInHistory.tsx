/** The whole history of a student's hand-in, in a dialog. */
import { useQuery } from "@tanstack/react-query";
import { History } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../api/client";
import { historyOfHandInQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { Failed, Waiting } from "../ui/Waiting";
import { HAPPENED, HISTORY } from "./historyTexts";

interface Props {
  groupId: number;
  handin: { id: number; title: string };
  student: number;
  /** For fingers: on the students' side. */
  big?: boolean;
}

export function HandInHistory(props: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button big={props.big ?? false} icon={<History aria-hidden size={16} />} onClick={() => setOpen(true)}>
        {HISTORY.open}
      </Button>
      {open && (
        <Modal read title={HISTORY.title({ title: props.handin.title })} onClose={() => setOpen(false)}>
          <Entries {...props} />
        </Modal>
      )}
    </>
  );
}

function Entries({ groupId, handin, student }: Props) {
  const found = useQuery(historyOfHandInQuery(groupId, handin.id, student));
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return (
    <>
      <p className="text-ink-soft">{found.data.length > 0 ? HISTORY.hint : HISTORY.none}</p>
      <ol className="flex flex-col">
        {found.data.map((one, at) => (
          <Entry key={at} one={one} />
        ))}
      </ol>
    </>
  );
}

function Entry({ one }: { one: Schema["HistoryEntry"] }) {
  return (
    <li className="flex gap-4 border-t border-line py-2 first:border-0 max-sm:flex-col max-sm:gap-0">
      <span className="figures w-36 shrink-0 text-quiet">{moment(one.at)}</span>
      <span className="min-w-0">
        <strong>{HISTORY.line({ what: HAPPENED[one.what], number: one.number ?? 0 })}</strong>
        {one.who && <span className="text-ink-soft"> · {one.who}</span>}
        {one.score !== null && one.points !== null && <span className="figures block">{HISTORY.score({ score: one.score, points: one.points })}</span>}
        {one.text && <span className="block border-l-3 border-edge pl-2 break-words whitespace-pre-wrap">{one.text}</span>}
      </span>
    </li>
  );
}
