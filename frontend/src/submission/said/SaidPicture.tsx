/** A picture of a submission, or the pages of a document, with the tools to look at it and to say something on it. */
import { Eraser, MapPin, Pencil, RotateCw, Undo2, ZoomIn, ZoomOut } from "lucide-react";
import { useLayoutEffect, useState } from "react";
import type { ReactNode } from "react";
import type { Schema } from "../../api/client";
import { isTyped, useLetterKeys } from "../../ui/keys";
import { fileAddress } from "../../viewer/files";
import { Picture } from "../../viewer/Picture";
import { COLOURS, INKS } from "./said";
import type { Said, Target, Tool } from "./said";
import { SAID } from "./saidTexts";
import { SaidSurface } from "./SaidSurface";
import type { Looked } from "./SaidSurface";

type Artefact = Schema["ArtefactShape"];

const ZOOMS = [1, 1.5, 2, 3, 4];
const FILL = "size-full rounded-md";

export function SaidPicture({ said, target, artefact }: { said: Said; target: Target; artefact: Artefact }) {
  const [looked, setLooked] = useState<Looked>({ zoom: 1, turned: 0 });
  const size = artefact.width && artefact.height ? { width: artefact.width, height: artefact.height } : null;
  const address = looked.zoom > 1 ? fileAddress(artefact) : `/api/artefacts/${artefact.id}/thumbnails/large`;
  return (
    <div className="flex flex-col gap-2">
      <Tools said={said} looked={looked} onLook={setLooked} />
      <SaidSurface
        said={said}
        target={target}
        looked={looked}
        size={size}
        picture={(onSize) => (
          <Picture src={address} alt={artefact.title} draggable={false} onLoad={(event) => onSize(event.currentTarget.naturalWidth, event.currentTarget.naturalHeight)} className={FILL} />
        )}
      />
    </div>
  );
}

/** The pages of a scan or a document. */
export function SaidPages({ said, target, artefact, pages, titled }: { said: Said; target: Target; artefact: Artefact; pages: number; titled: (page: number) => string }) {
  const [looked, setLooked] = useState<Looked>({ zoom: 1, turned: 0 });
  return (
    <div className="flex flex-col gap-2">
      <Tools said={said} looked={looked} onLook={setLooked} />
      <ol className="flex flex-col gap-4">
        {Array.from({ length: pages }, (_, at) => (
          <li key={at} aria-label={titled(at + 1)}>
            <SaidSurface
              said={said}
              target={{ ...target, page: at + 1 }}
              looked={looked}
              size={{ width: 210, height: 297 }}
              picture={(onSize) => (
                <img
                  src={`/api/artefacts/${artefact.id}/view/pages/${at + 1}`}
                  alt={titled(at + 1)}
                  loading={at > 1 ? "lazy" : undefined}
                  draggable={false}
                  onLoad={(event) => onSize(event.currentTarget.naturalWidth, event.currentTarget.naturalHeight)}
                  className={FILL}
                />
              )}
            />
          </li>
        ))}
      </ol>
    </div>
  );
}

interface ToolsProps {
  said: Said;
  looked: Looked;
  onLook: (looked: Looked) => void;
}

function Tools({ said, looked, onLook }: ToolsProps) {
  const letters = useLetterKeys();
  const larger = ZOOMS.find((one) => one > looked.zoom);
  const smaller = ZOOMS.findLast((one) => one < looked.zoom);
  useLayoutEffect(() => {
    const act: Record<string, (() => void) | false | undefined> = {
      "+": larger !== undefined && (() => onLook({ ...looked, zoom: larger })),
      "-": smaller !== undefined && (() => onLook({ ...looked, zoom: smaller })),
      r: () => onLook({ ...looked, turned: (looked.turned + 1) % 4 }),
    };
    const listen = (event: KeyboardEvent) => {
      const run = act[event.key];
      if (!letters || !run || isTyped(event)) return;
      event.preventDefault();
      run();
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [letters, larger, smaller, looked, onLook]);
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      {said.writes && <SayingTools said={said} />}
      <span className="ml-auto flex items-center gap-1.5">
        <Tool big={!said.writes} label={SAID.smaller} icon={<ZoomOut aria-hidden size={16} />} disabled={smaller === undefined} act={() => onLook({ ...looked, zoom: smaller ?? 1 })} />
        <button type="button" className={`figures min-w-14 rounded-md px-1 text-sm hover:bg-paper ${said.writes ? "min-h-8" : "min-h-11"}`} title={SAID.fit} onClick={() => onLook({ zoom: 1, turned: 0 })}>
          {looked.zoom === 1 ? SAID.fit : SAID.zoom({ zoom: looked.zoom * 100 })}
        </button>
        <Tool big={!said.writes} label={SAID.larger} icon={<ZoomIn aria-hidden size={16} />} disabled={larger === undefined} act={() => onLook({ ...looked, zoom: larger ?? 1 })} />
        <Tool big={!said.writes} label={SAID.turn} icon={<RotateCw aria-hidden size={16} />} act={() => onLook({ ...looked, turned: (looked.turned + 1) % 4 })} />
      </span>
    </div>
  );
}

function SayingTools({ said }: { said: Said }) {
  const pick = (tool: Tool) => said.setTool(said.tool === tool ? "look" : tool);
  const drawing = said.tool === "ink" || said.tool === "erase";
  return (
    <>
      <Tool words label={SAID.spot} on={said.tool === "spot"} icon={<MapPin aria-hidden size={16} />} act={() => pick("spot")} />
      <Tool words label={SAID.ink} on={said.tool === "ink"} icon={<Pencil aria-hidden size={16} />} act={() => pick("ink")} />
      {drawing && (
        <>
          <span role="radiogroup" aria-label={SAID.colours} className="flex">
            {COLOURS.map((one) => (
              <button
                key={one}
                type="button"
                role="radio"
                aria-checked={said.colour === one}
                aria-label={SAID.colour[one]}
                title={SAID.colour[one]}
                onClick={() => {
                  said.setColour(one);
                  said.setTool("ink");
                }}
                className={`flex size-8 items-center justify-center rounded-md border-2 ${said.colour === one ? "border-ink" : "border-transparent"}`}
              >
                <span aria-hidden className={`size-5 rounded-full border border-paper ${INKS[one].ground}`} />
              </button>
            ))}
          </span>
          <Tool label={SAID.erase} on={said.tool === "erase"} icon={<Eraser aria-hidden size={16} />} act={() => pick(said.tool === "erase" ? "ink" : "erase")} />
          <Tool label={SAID.undo} icon={<Undo2 aria-hidden size={16} />} act={said.undo} />
        </>
      )}
      {said.tool === "spot" && <span className="text-sm text-quiet">{SAID.spotHint}</span>}
    </>
  );
}

interface ToolProps {
  label: string;
  icon: ReactNode;
  act: () => void;
  on?: boolean;
  disabled?: boolean;
  words?: boolean;
  /** For fingers: on the students' side. */
  big?: boolean;
}

function Tool({ label, icon, act, on, disabled = false, words = false, big = false }: ToolProps) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={on}
      aria-disabled={disabled || undefined}
      onClick={() => !disabled && act()}
      className={`flex items-center justify-center gap-1.5 ${big ? "min-h-11 min-w-11" : "min-h-8 min-w-8"} rounded-md border px-2 text-sm font-semibold aria-disabled:opacity-40 ${on ? "border-ink bg-ink text-paper" : "border-edge bg-paper hover:border-control"}`}
    >
      {icon}
      {words && label}
    </button>
  );
}
