/** The title of a view that goes on paper as it stands on the screen, without its buttons. */
import { useGroup } from "../api/session";
import { paperTitle } from "./paperTitle";
import type { Titled } from "./paperTitle";
import { TEXTS } from "./texts";

export function PaperHead({ className = "", ...props }: Omit<Titled, "title"> & { className?: string }) {
  const title = useGroup()?.name ?? TEXTS.title;
  return (
    <p aria-hidden className={`hidden pb-2 text-base font-bold print:block ${className}`}>
      {paperTitle({ ...props, title })}
    </p>
  );
}
