/** Who put something in, where somebody else of those who fill the pocket did. */
import type { Schema } from "../../api/client";
import { PegPicture } from "./PegPicture";
import { WRITTEN } from "./texts";

export function PutInBy({ by }: { by: Schema["MateShape"] | null | undefined }) {
  if (!by) return null;
  return (
    <p className="inline-flex items-center gap-1.5 text-sm text-ink-soft">
      <PegPicture picture={by.picture} tint={by.tint} size={22} />
      {WRITTEN.from({ name: by.name })}
    </p>
  );
}
