/** Cropping one photo: four edges, moved with the finger, the pointer or the arrow keys. */
import { useRef, useState } from "react";
import type { PointerEvent } from "react";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import type { Photo } from "./photo";
import { PHOTO } from "./texts";
import { TEXTS } from "./texts";

const LEAST = 0.05;
const EDGES = [TEXTS.leftEdge, TEXTS.topEdge, TEXTS.rightEdge, TEXTS.bottomEdge] as const;

interface Props {
  photo: Photo;
  onCrop: (crop: Photo["crop"]) => void;
  onClose: () => void;
}

/** An edge moved to a share of the picture, never past the one across. */
function moved(crop: Photo["crop"], edge: number, to: number): Photo["crop"] {
  const next: Photo["crop"] = [...crop];
  const across = crop[(edge + 2) % 4] ?? 0;
  next[edge] = edge < 2 ? Math.min(Math.max(to, 0), across - LEAST) : Math.max(Math.min(to, 1), across + LEAST);
  return next;
}

export function CropField({ photo, onCrop, onClose }: Props) {
  const [crop, setCrop] = useState(photo.crop);
  const canvas = useRef<HTMLCanvasElement>(null);
  const held = useRef<number | null>(null);
  const draw = (image: HTMLImageElement) => {
    const on = canvas.current?.getContext("2d");
    if (!canvas.current || !on) return;
    const sideways = photo.turn % 180 !== 0;
    const scale = Math.min(1, 1200 / Math.max(image.naturalWidth, image.naturalHeight));
    const [wide, high] = [image.naturalWidth * scale, image.naturalHeight * scale];
    canvas.current.width = sideways ? high : wide;
    canvas.current.height = sideways ? wide : high;
    on.translate(canvas.current.width / 2, canvas.current.height / 2);
    on.rotate((photo.turn * Math.PI) / 180);
    on.drawImage(image, -wide / 2, -high / 2, wide, high);
  };
  const shareOf = (event: PointerEvent) => {
    const box = canvas.current?.getBoundingClientRect();
    return box ? [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height] : [0, 0];
  };
  const grab = (event: PointerEvent) => {
    const [x = 0, y = 0] = shareOf(event);
    const far = [Math.abs(x - crop[0]), Math.abs(y - crop[1]), Math.abs(x - crop[2]), Math.abs(y - crop[3])];
    held.current = far.indexOf(Math.min(...far));
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const drag = (event: PointerEvent) => {
    if (held.current === null) return;
    setCrop(moved(crop, held.current, shareOf(event)[held.current % 2] ?? 0));
  };
  const [left, top, right, bottom] = crop.map((one) => one * 100) as Photo["crop"];
  return (
    <Modal title={`${PHOTO.crop}: ${photo.name}`} onClose={onClose}>
      <div
        className="relative mx-auto touch-none"
        onPointerDown={grab}
        onPointerMove={drag}
        onPointerUp={() => {
          held.current = null;
        }}
      >
        <img src={photo.address} alt="" hidden onLoad={(event) => draw(event.currentTarget)} />
        <canvas ref={canvas} className="max-h-[55vh] max-w-full" />
        <svg aria-hidden viewBox="0 0 100 100" preserveAspectRatio="none" className="pointer-events-none absolute inset-0 size-full">
          <path d={`M0 0H100V100H0Z M${left} ${top}V${bottom}H${right}V${top}Z`} fillRule="evenodd" className="fill-ink/60" />
          <rect x={left} y={top} width={right - left} height={bottom - top} vectorEffect="non-scaling-stroke" className="fill-none stroke-brass stroke-3" />
        </svg>
      </div>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1">
        {EDGES.map((name, edge) => (
          <label key={name} className="flex flex-col">
            {name}
            <input type="range" min={0} max={100} value={Math.round((crop[edge] ?? 0) * 100)} onChange={(event) => setCrop(moved(crop, edge, Number(event.target.value) / 100))} className="min-h-11 w-full accent-ink" />
          </label>
        ))}
      </div>
      <div className="flex flex-wrap gap-2">
        <Button
          look="main"
          big
          onClick={() => {
            onCrop(crop);
            onClose();
          }}
        >
          {PHOTO.cropNow}
        </Button>
        <Button big onClick={() => setCrop([0, 0, 1, 1])}>
          {PHOTO.whole}
        </Button>
        <Button big onClick={onClose}>
          {TEXTS.cancel}
        </Button>
      </div>
    </Modal>
  );
}
