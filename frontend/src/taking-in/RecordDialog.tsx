/** Recording sound, or video where there is a camera: level, pause, listen again, up to a set length. */
import { Circle, Mic, Pause, Play, RotateCcw, Square, Video } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { Player } from "../ui/reading/Player";
import { useGuard } from "../ui/useGuard";
import { devicesProblem } from "./devices";
import { RECORD } from "./texts";
import { TEXTS } from "./texts";

const LONGEST = 10 * 60;
/** Seconds. A lesson's talk; what is longer is a film, and comes as a file. */
const TYPES = {
  sound: ["audio/webm;codecs=opus", "audio/mp4", "audio/webm"],
  video: ["video/webm;codecs=vp8,opus", "video/mp4", "video/webm"],
} as const;
const SLICE = 1000;
/** Milliseconds after which what was recorded so far is handed over, so that nothing is lost when the page stops. */

type Kind = keyof typeof TYPES;
type State = "ready" | "recording" | "paused" | "done";

interface Props {
  /** Only sound: what is said about an artefact. */
  soundOnly?: boolean;
  /** In seconds. */
  longest?: number;
  title: string;
  onDone: (recording: Blob, name: string) => void;
  onClose: () => void;
}

function clockOf(seconds: number): string {
  return `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;
}

// eslint-disable-next-line complexity -- one branch for each state of a recording, sound or film
export function RecordDialog({ soundOnly = false, longest = LONGEST, title, onDone, onClose }: Props) {
  const [kind, setKind] = useState<Kind>("sound");
  const [state, setState] = useState<State>("ready");
  const [seconds, setSeconds] = useState(0);
  const [level, setLevel] = useState(0);
  const [problem, setProblem] = useState("");
  const [made, setMade] = useState<{ blob: Blob; address: string } | null>(null);
  const recorder = useRef<MediaRecorder | null>(null);
  const watching = useRef(0);
  const seen = useRef<HTMLVideoElement>(null);

  const stopDevices = () => {
    cancelAnimationFrame(watching.current);
    recorder.current?.stream.getTracks().forEach((track) => track.stop());
  };
  useEffect(() => stopDevices, []);
  useEffect(() => () => (made ? URL.revokeObjectURL(made.address) : undefined), [made]);
  useEffect(() => {
    if (state !== "recording") return;
    const timer = setInterval(() => setSeconds((now) => now + 0.25), 250);
    return () => clearInterval(timer);
  }, [state]);
  useEffect(() => {
    if (seconds >= longest && recorder.current?.state === "recording") recorder.current.stop();
  }, [seconds, longest]);

  const begin = async () => {
    setProblem("");
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true, ...(kind === "video" ? { video: { width: { ideal: 1280 } } } : {}) });
      const type = TYPES[kind].find((one) => MediaRecorder.isTypeSupported(one)) ?? "";
      const one = new MediaRecorder(stream, type ? { mimeType: type } : {});
      const parts: Blob[] = [];
      one.ondataavailable = (event) => {
        if (event.data.size > 0) parts.push(event.data);
      };
      one.onstop = () => {
        stopDevices();
        const blob = new Blob(parts, { type: one.mimeType.split(";")[0] ?? "" });
        setMade({ blob, address: URL.createObjectURL(blob) });
        setState("done");
      };
      recorder.current = one;
      watch(stream);
      if (seen.current && kind === "video") {
        seen.current.srcObject = stream;
        void seen.current.play();
      }
      one.start(SLICE);
      setSeconds(0);
      setState("recording");
    } catch (error) {
      setProblem(devicesProblem(error, kind === "video" ? "camera" : "microphone"));
    }
  };
  const watch = (stream: MediaStream) => {
    const context = new AudioContext();
    const analyser = context.createAnalyser();
    context.createMediaStreamSource(stream).connect(analyser);
    const samples = new Uint8Array(analyser.fftSize);
    const look = () => {
      analyser.getByteTimeDomainData(samples);
      const loudest = samples.reduce((most, one) => Math.max(most, Math.abs(one - 128)), 0);
      setLevel(Math.min(loudest / 100, 1));
      watching.current = requestAnimationFrame(look);
    };
    look();
  };
  const pause = () => {
    recorder.current?.pause();
    setState("paused");
  };
  const goOn = () => {
    recorder.current?.resume();
    setState("recording");
  };
  const [close, question] = useGuard(state === "ready" ? "" : RECORD.losing, onClose);
  const name = `${kind === "video" ? RECORD.film : RECORD.sound} ${new Date().toISOString().slice(0, 10)}.${made?.blob.type.endsWith("mp4") ? (kind === "video" ? "mp4" : "m4a") : "webm"}`;
  return (
    <Modal title={title} onClose={close}>
      {!soundOnly && state === "ready" && (
        <div role="radiogroup" aria-label={RECORD.what} className="flex gap-2">
          <Choice icon={<Mic aria-hidden size={18} />} name={RECORD.sound} on={kind === "sound"} act={() => setKind("sound")} />
          <Choice icon={<Video aria-hidden size={18} />} name={RECORD.film} on={kind === "video"} act={() => setKind("video")} />
        </div>
      )}
      {problem && <Notice title={problem} fix={RECORD.instead} />}
      {kind === "video" && state !== "done" && <video ref={seen} muted playsInline aria-label={RECORD.seen} className="max-h-[45vh] w-full rounded-md bg-shade" />}
      {state === "done" && made && <Player video={kind === "video"} src={made.address} label={RECORD.again} className="max-h-[45vh]" />}
      <div className="flex items-center gap-4">
        <p role="timer" className="figures text-2xl">
          {clockOf(seconds)} <span className="text-base text-quiet">{TEXTS.ofLongest({ LONGEST: clockOf(longest) })}</span>
        </p>
        {(state === "recording" || state === "paused") && <meter aria-label={RECORD.level} min={0} max={1} value={state === "recording" ? level : 0} className="h-4 flex-1" />}
      </div>
      <p role="status" className="text-ink-soft">
        {RECORD.states[state]}
      </p>
      <div className="flex flex-wrap gap-2">
        {state === "ready" && (
          <Button look="main" big icon={<Circle aria-hidden size={18} />} onClick={() => void begin()}>
            {RECORD.begin}
          </Button>
        )}
        {state === "recording" && (
          <Button big icon={<Pause aria-hidden size={18} />} onClick={pause}>
            {RECORD.pause}
          </Button>
        )}
        {state === "paused" && (
          <Button big icon={<Play aria-hidden size={18} />} onClick={goOn}>
            {RECORD.goOn}
          </Button>
        )}
        {(state === "recording" || state === "paused") && (
          <Button look="main" big icon={<Square aria-hidden size={18} />} onClick={() => recorder.current?.stop()}>
            {RECORD.stop}
          </Button>
        )}
        {state === "done" && made && (
          <>
            <Button look="main" big onClick={() => onDone(made.blob, name)}>
              {RECORD.add}
            </Button>
            <Button
              big
              icon={<RotateCcw aria-hidden size={18} />}
              onClick={() => {
                setMade(null);
                setSeconds(0);
                setState("ready");
              }}
            >
              {RECORD.anew}
            </Button>
          </>
        )}
        <Button big onClick={close}>
          {TEXTS.cancel}
        </Button>
      </div>
      {question}
    </Modal>
  );
}

function Choice({ icon, name, on, act }: { icon: React.ReactNode; name: string; on: boolean; act: () => void }) {
  return (
    <button type="button" role="radio" aria-checked={on} onClick={act} className={`flex min-h-11 items-center gap-2 rounded-md border px-4 font-semibold ${on ? "border-ink bg-ink text-paper" : "border-control"}`}>
      {icon}
      {name}
    </button>
  );
}
