/** Photos before they go up: put in order, turned, cropped, joined to one artefact of several pages. */
import { ArrowLeft, ArrowRight, Camera, Crop, ImagePlus, RotateCw, Trash2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { ReactNode } from "react";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { newKey } from "../ui/newKey";
import { useGuard } from "../ui/useGuard";
import { CameraShot } from "./CameraShot";
import { CropField } from "./CropField";
import type { Photo } from "./photo";
import { PHOTO } from "./texts";
import type { Extra } from "./uploads";
import { TEXTS } from "./texts";


const WHOLE: Photo["crop"] = [0, 0, 1, 1];
const MOST_PAGES = 40;

interface Props {
  first: File[];
  onDone: (files: { file: Blob; name: string; extra?: Extra }[]) => void;
  onClose: () => void;
}

function photoOf(file: Blob, name: string): Photo {
  return { key: newKey(), file, name, address: URL.createObjectURL(file), turn: 0, crop: WHOLE };
}

function extraOf(photo: Photo): Extra {
  const cropped = photo.crop.some((side, at) => side !== WHOLE[at]);
  return { turn: photo.turn, ...(cropped ? { crop: photo.crop.map((side) => side.toFixed(4)).join(",") } : {}) };
}

export function PhotoDialog({ first, onDone, onClose }: Props) {
  const [photos, setPhotos] = useState<Photo[]>(() => first.map((file) => photoOf(file, file.name)));
  const [joined, setJoined] = useState(false);
  const [shooting, setShooting] = useState(first.length === 0);
  const [cropping, setCropping] = useState<string | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const all = useRef(photos);
  useEffect(() => {
    all.current = photos;
  }, [photos]);
  useEffect(() => () => all.current.forEach((one) => URL.revokeObjectURL(one.address)), []);

  const change = (key: string, fields: Partial<Photo>) => setPhotos((old) => old.map((one) => (one.key === key ? { ...one, ...fields } : one)));
  const swap = (at: number, by: number) =>
    setPhotos((old) => {
      const next = [...old];
      const [moved] = next.splice(at, 1);
      if (moved) next.splice(at + by, 0, moved);
      return next;
    });
  const finish = () => {
    const batch = joined && photos.length > 1 ? newKey() : "";
    const title = `${PHOTO.pages} ${new Date().toISOString().slice(0, 10)}`;
    onDone(
      photos.map((photo, place) => ({
        file: photo.file,
        name: batch ? title : photo.name,
        extra: { ...extraOf(photo), ...(batch ? { batch, place, places: photos.length } : {}) },
      })),
    );
  };
  const [close, question] = useGuard(photos.length === 0 ? "" : photos.length === 1 ? PHOTO.losingOne : PHOTO.losing, onClose);
  const open = photos.find((one) => one.key === cropping);
  if (open) return <CropField photo={open} onCrop={(crop) => change(open.key, { crop })} onClose={() => setCropping(null)} />;
  if (shooting) {
    return (
      <CameraShot
        onShot={(shot) => {
          setPhotos((old) => [...old, photoOf(shot, TEXTS.photoCountJpg({ count: old.length + 1 }))]);
          setShooting(false);
        }}
        onClose={() => (photos.length > 0 ? setShooting(false) : onClose())}
      />
    );
  }
  return (
    <Modal title={PHOTO.title} onClose={close}>
      {question}
      <ol aria-label={PHOTO.photos} className="grid gap-3 min-[30rem]:grid-cols-2">
        {photos.map((photo, at) => (
          <li key={photo.key} className="flex flex-col rounded-md border border-edge bg-ground">
            <Shown photo={photo} number={joined ? at + 1 : 0} />
            <div className="flex flex-wrap justify-center">
              <Act name={`${PHOTO.earlier}: ${photo.name}`} off={at === 0} act={() => swap(at, -1)} icon={<ArrowLeft aria-hidden size={18} />} />
              <Act name={`${PHOTO.later}: ${photo.name}`} off={at === photos.length - 1} act={() => swap(at, 1)} icon={<ArrowRight aria-hidden size={18} />} />
              <Act name={`${PHOTO.turn}: ${photo.name}`} act={() => change(photo.key, { turn: (photo.turn + 90) % 360, crop: WHOLE })} icon={<RotateCw aria-hidden size={18} />} />
              <Act name={`${PHOTO.crop}: ${photo.name}`} act={() => setCropping(photo.key)} icon={<Crop aria-hidden size={18} />} />
              <Act name={`${PHOTO.leave}: ${photo.name}`} act={() => setPhotos((old) => old.filter((one) => one.key !== photo.key))} icon={<Trash2 aria-hidden size={18} />} />
            </div>
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap gap-2">
        <Button big icon={<Camera aria-hidden size={18} />} onClick={() => setShooting(true)}>
          {PHOTO.another}
        </Button>
        <Button big icon={<ImagePlus aria-hidden size={18} />} onClick={() => chooser.current?.click()}>
          {PHOTO.fromDevice}
        </Button>
        <input
          ref={chooser}
          type="file"
          accept="image/*,.heic,.heif"
          multiple
          hidden
          aria-label={PHOTO.fromDevice}
          onChange={(event) => {
            const found = [...(event.target.files ?? [])];
            setPhotos((old) => [...old, ...found.map((file) => photoOf(file, file.name))]);
            event.target.value = "";
          }}
        />
      </div>
      {photos.length > 1 && photos.length <= MOST_PAGES && (
        <label className="flex min-h-11 items-center gap-3">
          <input type="checkbox" className="size-5 accent-ink" checked={joined} onChange={(event) => setJoined(event.target.checked)} />
          {PHOTO.join}
        </label>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="main" big disabled={photos.length === 0} onClick={finish}>
          {joined && photos.length > 1 ? PHOTO.addPages : TEXTS.addPhotos({ count: photos.length })}
        </Button>
        <Button big onClick={close}>
          {TEXTS.cancel}
        </Button>
      </div>
    </Modal>
  );
}

function Act({ name, off = false, act, icon }: { name: string; off?: boolean; act: () => void; icon: ReactNode }) {
  return (
    <button type="button" aria-label={name} title={name.split(":")[0]} disabled={off} onClick={act} className="flex size-11 items-center justify-center rounded-md text-ink-soft hover:bg-paper disabled:opacity-30">
      {icon}
    </button>
  );
}

const TURNS: Record<number, string> = { 0: "", 90: "rotate-90", 180: "rotate-180", 270: "-rotate-90" };

/** A photo as it will be; one that this browser cannot draw (HEIC) is named. */
function Shown({ photo, number }: { photo: Photo; number: number }) {
  const [broken, setBroken] = useState(false);
  const [left, top, right, bottom] = photo.crop;
  const cropped = left > 0 || top > 0 || right < 1 || bottom < 1;
  return (
    <div className="relative flex h-44 items-center justify-center overflow-hidden rounded-t-md">
      {broken ? (
        <p className="p-3 text-center text-sm break-words text-ink-soft">
          {photo.name}
          <br />
          {PHOTO.unseen}
        </p>
      ) : (
        <img src={photo.address} alt={photo.name} onError={() => setBroken(true)} className={`max-h-44 max-w-full object-contain ${TURNS[photo.turn] ?? ""}`} />
      )}
      {number > 0 && <span className="figures absolute top-1 left-1 rounded-sm bg-ink px-2 font-bold text-paper">{number}</span>}
      {cropped && <span className="absolute right-1 bottom-1 rounded-sm bg-ink px-2 text-sm text-paper">{PHOTO.cropped}</span>}
    </div>
  );
}
