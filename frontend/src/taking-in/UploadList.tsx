/** Files on their way, and those that did not make it. */
import { HardDrive } from "lucide-react";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { again } from "./queue";
import type { Entry } from "./queue";
import { useConnection } from "../api/connection";
import { TEXTS } from "./texts";

interface Props {
  uploads: Entry[];
  onDrop: (entry: Entry) => void;
}

export function UploadList({ uploads, onDrop }: Props) {
  const away = useConnection() !== "there";
  if (uploads.length === 0) return null;
  return (
    <ul aria-label={TEXTS.filesOnTheirWay} className="flex flex-col gap-2">
      {uploads.map((one) => (
        <li key={one.id}>
          {one.problem ? (
            <Notice title={one.problem.title} fix={one.problem.fix}>
              <div className="mt-2 flex gap-2">
                {one.problem.status !== 413 && (
                  <Button big onClick={() => again(one.id)}>
                    {TEXTS.retry}
                  </Button>
                )}
                <Button big look="quiet" onClick={() => onDrop(one)}>
                  {TEXTS.drop}
                </Button>
              </div>
            </Notice>
          ) : (
            <div className="flex flex-wrap items-center gap-x-3 gap-y-1 rounded-md border border-edge bg-paper p-3">
              <span className="min-w-0 flex-1 truncate">{one.wish.name}</span>
              {away && (
                <span className="flex items-center gap-1.5 rounded-sm bg-late px-2 text-late-ink">
                  <HardDrive aria-hidden size={15} />
                  {one.safe ? TEXTS.fileKept : TEXTS.fileOpen}
                </span>
              )}
              {one.arrived ? (
                <span className="text-ink-soft">{TEXTS.makingReady}</span>
              ) : (
                <>
                  <progress aria-label={TEXTS.nameOnItsWay({ name: one.wish.name })} value={one.share} max={1} className="w-32 accent-in" />
                  <span className="figures w-10 text-right">{Math.round(one.share * 100)}%</span>
                </>
              )}
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}
