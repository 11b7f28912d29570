/** A show page as the class sees it. */
import { Picture } from "../viewer/Picture";
import type { Schema } from "../api/client";
import { PegPicture } from "../ui/people/PegPicture";
import { Player } from "../ui/reading/Player";
import { RichText } from "../ui/reading/RichText";
import { TEXTS } from "./texts";

type Show = Schema["ShowShape"];
type Shown = Schema["ShownShape"];

export function ShowBoard({ show }: { show: Pick<Show, "name" | "title" | "picture" | "tint" | "shown"> }) {
  return (
    <section aria-label={`${show.title || TEXTS.showPage}, ${show.name}`} className="flex flex-col gap-4 rounded-lg border border-edge bg-paper p-5">
      <header className="flex items-center gap-3">
        <PegPicture picture={show.picture} tint={show.tint} size={44} />
        <div className="min-w-0">
          <h2 className="text-xl break-words">{show.title || show.name}</h2>
          {show.title && <p className="text-ink-soft">{show.name}</p>}
        </div>
      </header>
      <ul className="grid gap-4 sm:grid-cols-2">
        {show.shown.map((one) => (
          <li key={one.id} className={`flex flex-col gap-2 ${one.wide ? "sm:col-span-2" : ""}`}>
            <ShownArtefact shown={one} />
            {one.caption && <p className="text-base break-words">{one.caption}</p>}
          </li>
        ))}
      </ul>
    </section>
  );
}

function ShownArtefact({ shown }: { shown: Shown }) {
  const { artefact } = shown;
  const file = `/api/shown/${shown.id}/file`;
  if (artefact.kind === "picture" || artefact.kind === "scan") {
    return <Picture src={`/api/shown/${shown.id}/thumbnails/large`} alt={artefact.title} loading="lazy" width={artefact.width ?? undefined} height={artefact.height ?? undefined} className="h-auto max-h-[32rem] w-full rounded-md bg-today object-contain" />;
  }
  if (artefact.kind === "video" || artefact.kind === "sound") return <Player video={artefact.kind === "video"} src={file} label={artefact.title} className="w-full" />;
  if (artefact.kind === "text") return <RichText html={artefact.html} className="reading rounded-md bg-today p-4 text-base" />;
  const words = "inline-flex min-h-11 items-center font-semibold break-all text-in underline";
  if (artefact.kind === "link") {
    return (
      <a href={artefact.link} target="_blank" rel="noopener noreferrer nofollow" className={words}>
        {artefact.title}
      </a>
    );
  }
  return (
    <a href={file} download className={words}>
      {artefact.title}
    </a>
  );
}
