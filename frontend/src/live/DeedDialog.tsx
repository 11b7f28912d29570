/** A deed on one or many: whom it touches and whom not is said before it is done; done, it can be undone. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { DEED } from "./deedTexts";
import { useUndo } from "./useUndo";

export type Touched = Schema["TouchedShape"];

/** What was done, in words; and how it is taken back, which answers what is said then. */
export interface Done {
  said: string;
  back: () => Promise<string>;
}


/** The undo of a deed that the server knows by its name. */
export const undoOf = (what: "locked" | "handed-in" | "sent-back" | "accepted" | "reopened", groupId: number, deed: string) => async () =>
  DEED.undone(await answer(client.DELETE(`/api/groups/{group_id}/cells/${what}/{deed}`, { params: { path: { group_id: groupId, deed } } })));

interface Props<T extends Touched> {
  title: string;
  groupId: number;
  /** What tells one look from another: everything that is sent. */
  lookKey: unknown[];
  /** Whether what is filled in says anything yet. */
  ready?: boolean;
  /** It is settled: what is looked at is what would be done. */
  settled?: boolean;
  look: () => Promise<T>;
  act: () => Promise<Done>;
  /** The button: what it does, and to how many. */
  doIt: (touched: { cells: number }) => string;
  touches?: (touched: Touched) => string;
  more?: (touched: T) => ReactNode;
  children?: ReactNode;
  onClose: () => void;
  onDone: () => void;
}

/** What would be done, and doing it. */
function useDeed<T extends Touched>({ title, groupId, lookKey, ready = true, settled = true, look, act, onDone }: Props<T>) {
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndo(groupId);
  const looked = useQuery({
    queryKey: ["group", groupId, "many", title, ...lookKey],
    enabled: ready,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: look,
  });
  const done = useMutation({
    mutationFn: act,
    onSuccess: async ({ said, back }) => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      say(said, undo(back));
      onDone();
    },
  });
  const problem = [done.error, looked.error].find((one) => one instanceof Problem);
  const touched = looked.data;
  const can = ready && settled && !done.isPending && Boolean(touched?.cells);
  return { touched, cells: touched?.cells ?? 0, looking: ready && looked.isFetching, problem, can, act: () => done.mutate() };
}

export function DeedDialog<T extends Touched>(props: Props<T>) {
  const { title, doIt, touches = DEED.touches, more, children, onClose } = props;
  const { touched, cells, looking, problem, can, act } = useDeed(props);
  return (
    <Modal narrow title={title} onClose={onClose}>
      {children}
      <div aria-live="polite" className="rounded-md bg-in-soft p-3">
        {touched ? <Touches touched={touched} words={touches} /> : <p className="text-quiet">{looking && DEED.looking}</p>}
        {touched && more?.(touched)}
      </div>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="flex flex-wrap justify-end gap-2">
        <Button big onClick={onClose}>
          {DEED.cancel}
        </Button>
        <Button big look="main" disabled={!can} onClick={act}>
          {doIt({ cells })}
        </Button>
      </div>
    </Modal>
  );
}

const MOST_NAMED = 5;

/** Whom it would touch, and why others are left alone. */
function Touches({ touched, words }: { touched: Touched; words: (touched: Touched) => string }) {
  return (
    <>
      <p className="font-bold">{words(touched)}</p>
      {touched.left.length > 0 && (
        <ul className="mt-1">
          {touched.left.map((one) => (
            <li key={one.why} className="break-words">
              {DEED.leftAlone({ cells: one.cells, why: DEED.why[one.why], names: one.names.slice(0, MOST_NAMED).join("; "), named: one.names.length, more: Math.max(0, one.names.length - MOST_NAMED) })}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
