/** Files on their way, and those that did not make it. */
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { TEXTS } from "./texts";
import type { Upload } from "./uploads";

interface Props {
  uploads: Upload[];
  onAgain: (upload: Upload) => void;
  onDrop: (id: number) => void;
}

export function UploadList({ uploads, onAgain, onDrop }: Props) {
  if (uploads.length === 0) return null;
  return (
    <ul aria-label="Files on their way" className="flex flex-col gap-2">
      {uploads.map((one) => (
        <li key={one.id}>
          {one.problem ? (
            <Notice title={one.problem.title} fix={one.problem.fix}>
              <div className="mt-2 flex gap-2">
                {one.problem.status !== 413 && (
                  <Button big onClick={() => onAgain(one)}>
                    {TEXTS.retry}
                  </Button>
                )}
                <Button big look="quiet" onClick={() => onDrop(one.id)}>
                  {TEXTS.drop}
                </Button>
              </div>
            </Notice>
          ) : (
            <div className="flex items-center gap-3 rounded-md border border-edge bg-paper p-3">
              <span className="min-w-0 flex-1 truncate">{one.file.name}</span>
              <progress aria-label={`${one.file.name} on its way`} value={one.share ?? 0} max={1} className="w-32 accent-in" />
              <span className="figures w-10 text-right">{Math.round((one.share ?? 0) * 100)}%</span>
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}
