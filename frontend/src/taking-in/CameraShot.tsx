/** A photo straight from the camera of the device. */
import { Camera, SwitchCamera } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { devicesProblem } from "./devices";
import { PHOTO } from "./texts";
import { TEXTS } from "./texts";

const QUALITY = 0.95;

export function CameraShot({ onShot, onClose }: { onShot: (shot: Blob) => void; onClose: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const [facing, setFacing] = useState<"environment" | "user">("environment");
  const [ready, setReady] = useState(false);
  const [problem, setProblem] = useState("");
  useEffect(() => {
    let stream: MediaStream | null = null;
    let over = false;
    const begin = async () => {
      try {
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: facing, width: { ideal: 2560 }, height: { ideal: 1920 } } });
        if (over || !video.current) return stream.getTracks().forEach((track) => track.stop());
        video.current.srcObject = stream;
        await video.current.play();
        setReady(true);
      } catch (error) {
        if (!over) setProblem(devicesProblem(error, "camera"));
      }
    };
    void begin();
    return () => {
      over = true;
      setReady(false);
      stream?.getTracks().forEach((track) => track.stop());
    };
  }, [facing]);
  const shoot = () => {
    const seen = video.current;
    if (!seen) return;
    const canvas = document.createElement("canvas");
    canvas.width = seen.videoWidth;
    canvas.height = seen.videoHeight;
    canvas.getContext("2d")?.drawImage(seen, 0, 0);
    canvas.toBlob((shot) => shot && onShot(shot), "image/jpeg", QUALITY);
  };
  return (
    <Modal title={PHOTO.camera} onClose={onClose}>
      {problem ? (
        <Notice title={problem} fix={PHOTO.instead} />
      ) : (
        <video ref={video} muted playsInline aria-label={PHOTO.seen} className="max-h-[60vh] w-full rounded-md bg-shade object-contain" />
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="main" big icon={<Camera aria-hidden size={18} />} disabled={!ready} onClick={shoot}>
          {PHOTO.shoot}
        </Button>
        <Button big icon={<SwitchCamera aria-hidden size={18} />} onClick={() => setFacing(facing === "user" ? "environment" : "user")}>
          {PHOTO.turnRound}
        </Button>
        <Button big onClick={onClose}>
          {TEXTS.cancel}
        </Button>
      </div>
    </Modal>
  );
}
