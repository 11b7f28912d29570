/** A field for a page: headings, lists, tables, pictures and formulas; saves itself as every text does. */
import { lazy, Suspense, useId } from "react";
import type { ReactNode } from "react";
import { patiently } from "../api/patiently";
import { ReadAloud } from "../ui/reading/ReadAloud";
import { plainText, RichText } from "../ui/reading/RichText";
import { useAutosave } from "./autosave";
import type { Save, Saved } from "./keeper";
import type { Asked } from "./TextShell";
import { TextShell } from "./TextShell";

const PageEditor = lazy(() => patiently(() => import("./editor/PageEditor")));

interface Props {
  name: string;
  person: number;
  label: string;
  server: Saved;
  writable: boolean;
  length: Asked;
  limit: number;
  groupId: number;
  portfolio: number;
  save: Save;
  tools?: ReactNode;
}

export function RichWriting({ name, person, label, server, writable, length, limit, groupId, portfolio, save, tools }: Props) {
  const { text, state, change, settle, keeper } = useAutosave({ name, person, server, writable, save });
  const id = useId();
  return (
    <TextShell
      id={id}
      label={label}
      heading
      rich
      text={text}
      state={state}
      length={length}
      limit={limit}
      onSettle={settle}
      onLetGo={keeper.letGo}
      tools={
        <>
          <ReadAloud text={plainText(text)} />
          {tools}
        </>
      }
    >
      <Suspense fallback={<RichText html={text} className="mt-1 min-h-44 rounded-md border border-edge bg-paper px-3 py-2 text-base" />}>
        <PageEditor label={label} value={text} writable={writable} describedBy={`${id}-state`} groupId={groupId} portfolio={portfolio} onChange={change} />
      </Suspense>
    </TextShell>
  );
}
