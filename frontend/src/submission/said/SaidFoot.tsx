/** What goes for all that is said on a submission: what the student does not see yet, files out and in, the marked copy. */
import { useMutation } from "@tanstack/react-query";
import { Download, Printer, Upload } from "lucide-react";
import { useRef } from "react";
import { client, data } from "../../api/client";
import type { Schema } from "../../api/client";
import { Problem } from "../../api/problem";
import { upload } from "../../api/upload";
import { Button } from "../../ui/Button";
import { Notice } from "../../ui/Notice";
import { useSay } from "../../ui/Toasts";
import { useSaying } from "./said";
import type { Said } from "./said";
import { SAID } from "./saidTexts";

/** Comments that were added after the outcome; they are shown when their marker says so. */
export function NotShown({ said, decided, name }: { said: Said; decided: boolean; name: string }) {
  const { fresh } = useSaying(said.groupId, said.submission);
  const say = useSay();
  const show = useMutation({
    mutationFn: () => data(client.POST("/api/submissions/{submission_id}/shown-annotations", { params: { path: { submission_id: said.submission } } })),
    onSuccess: async ({ count }) => {
      say(SAID.shown({ count }));
      await fresh();
    },
  });
  const count = said.list.filter((one) => one.mine && !one.shown).length;
  if (!decided || !said.writes || count === 0) return null;
  return (
    <Notice look="info" title={SAID.notShown({ count, name })} fix={show.error instanceof Problem ? show.error.title : undefined}>
      <Button className="mt-2" disabled={show.isPending} onClick={() => show.mutate()}>
        {SAID.show}
      </Button>
    </Notice>
  );
}

const EVERY = 400;
/** Milliseconds between two looks at whether the copy is there. */

/** The submission printed with what is said on it: made in the background, then downloaded. */
function MarkedCopy({ submission }: { submission: number }) {
  const say = useSay();
  const make = useMutation({
    mutationFn: async () => {
      let pack = await data(client.POST("/api/submissions/{submission_id}/marked", { params: { path: { submission_id: submission } } }));
      while (!pack.ready_at && !pack.problem) {
        await new Promise((done) => setTimeout(done, EVERY));
        pack = await data(client.GET("/api/packs/{key}", { params: { path: { key: pack.key } } }));
      }
      if (pack.problem) throw new Problem({ title: SAID.noCopy, fix: SAID.noCopyFix }, 500);
      return pack;
    },
    onSuccess: (pack) => {
      const link = document.createElement("a");
      link.href = `/api/packs/${pack.key}/file`;
      link.download = "";
      link.click();
      say(SAID.copyThere);
    },
  });
  return (
    <>
      <button type="button" className={LINK} aria-disabled={make.isPending} onClick={() => !make.isPending && make.mutate()}>
        <Printer aria-hidden size={15} />
        {make.isPending ? SAID.copyMaking : SAID.copy}
      </button>
      {make.error instanceof Problem && <Notice title={make.error.title} fix={make.error.fix} />}
    </>
  );
}

const LINK = "inline-flex min-h-11 items-center gap-1.5 text-sm font-semibold text-in underline";

export function SaidFiles({ said }: { said: Said }) {
  const { fresh } = useSaying(said.groupId, said.submission);
  const say = useSay();
  const field = useRef<HTMLInputElement>(null);
  const address = `/api/submissions/${said.submission}/web-annotations`;
  const bring = useMutation({
    mutationFn: (file: File) => upload<Schema["TakenInShape"]>(address, file),
    onSuccess: async ({ count }) => {
      say(SAID.brought({ count }));
      await fresh();
    },
  });
  return (
    <div className="flex flex-col gap-2">
      <p className="flex flex-wrap gap-x-5">
        {said.list.length > 0 && (
          <a href={address} download className={LINK}>
            <Download aria-hidden size={15} />
            {SAID.file}
          </a>
        )}
        {said.list.length > 0 && <MarkedCopy submission={said.submission} />}
        {said.writes && (
          <button type="button" className={LINK} onClick={() => field.current?.click()}>
            <Upload aria-hidden size={15} />
            {SAID.bring}
          </button>
        )}
      </p>
      <input
        ref={field}
        type="file"
        hidden
        aria-label={SAID.bring}
        accept=".jsonld,.json,application/ld+json,application/json"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (file) bring.mutate(file);
        }}
      />
      {bring.error instanceof Problem && <Notice title={bring.error.title} fix={bring.error.fix} />}
      {bring.data && bring.data.notes.length > 0 && (
        <Notice look="info" title={SAID.brought({ count: bring.data.count })}>
          <ul className="list-disc pl-5">
            {bring.data.notes.map((one, at) => (
              <li key={at}>{one}</li>
            ))}
          </ul>
        </Notice>
      )}
    </div>
  );
}
