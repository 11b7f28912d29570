/** Sound or a film of a submission: at other speeds, with comments at moments. */
import { MessageSquare } from "lucide-react";
import { useRef, useState } from "react";
import type { Schema } from "../../api/client";
import { Button } from "../../ui/Button";
import { fileAddress } from "../../viewer/files";
import { clockOf } from "./clock";
import { begin, numbered, surfaceOf } from "./said";
import type { Said, Target } from "./said";
import { SAID } from "./saidTexts";

const SPEEDS = [0.75, 1, 1.25, 1.5, 2];

interface Props {
  said: Said | null;
  target: Target;
  artefact: Schema["ArtefactShape"];
}

export function SaidRecording({ said, target, artefact }: Props) {
  const player = useRef<HTMLVideoElement & HTMLAudioElement>(null);
  const [at, setAt] = useState(0);
  const [speed, setSpeed] = useState(1);
  const Media = artefact.kind === "video" ? "video" : "audio";
  const here = said?.list.filter((one) => one.target.at !== null && one.target.at !== undefined && surfaceOf(one.target) === surfaceOf(target)) ?? [];
  const numbers = numbered(said?.list ?? []);
  const go = (id: number, to: number) => {
    said?.choose(id);
    if (player.current) player.current.currentTime = to;
  };
  return (
    <div className="flex flex-col gap-2">
      <Media
        ref={player}
        controls
        preload="metadata"
        src={fileAddress(artefact)}
        aria-label={artefact.title}
        onTimeUpdate={(event) => setAt(event.currentTarget.currentTime)}
        className={Media === "video" ? "mx-auto max-h-[70vh] max-w-full rounded-md bg-shade" : "w-full"}
      />
      <div className="flex flex-wrap items-center gap-2">
        {said?.writes && (
          <Button
            icon={<MessageSquare aria-hidden size={15} />}
            onClick={() => {
              player.current?.pause();
              said.compose(begin({ ...target, at: Math.round(at * 10) / 10 }));
            }}
          >
            {SAID.moment({ at: clockOf(at) })}
          </Button>
        )}
        <label className="ml-auto flex items-center gap-1.5 text-sm">
          {SAID.speed}
          <select
            value={speed}
            onChange={(event) => {
              const to = Number(event.target.value);
              setSpeed(to);
              if (player.current) player.current.playbackRate = to;
            }}
            className="min-h-11 rounded-md border border-control bg-paper px-2"
          >
            {SPEEDS.map((one) => (
              <option key={one} value={one}>
                {SAID.times({ speed: one })}
              </option>
            ))}
          </select>
        </label>
      </div>
      {here.length > 0 && (
        <ol className="flex flex-wrap gap-1.5">
          {here.map((one) => (
            <li key={one.id}>
              <Button aria-pressed={said?.active === one.id} onClick={() => go(one.id, one.target.at ?? 0)}>
                <span className="figures">{numbers.get(one.id)}</span>
                {clockOf(one.target.at ?? 0)}
              </Button>
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
