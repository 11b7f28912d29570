/** Reading a text aloud with the device's own voice; nothing leaves the device. */
import { CircleStop, Volume2 } from "lucide-react";
import { useEffect, useState } from "react";
import { useReading } from "./reading";
import { TEXTS } from "../texts";

export const ALOUD = { read: TEXTS.readAloud, stop: TEXTS.stopReading, none: TEXTS.thisDeviceHasNoVoice } as const;

export function ReadAloud({ text }: { text: string }) {
  const { pace } = useReading();
  const [reading, setReading] = useState(false);
  useEffect(() => () => (reading ? window.speechSynthesis.cancel() : undefined), [reading]);
  if (!("speechSynthesis" in window) || !text.trim()) return null;
  const toggle = () => {
    window.speechSynthesis.cancel();
    if (reading) return setReading(false);
    const said = new SpeechSynthesisUtterance(text);
    said.rate = pace / 100;
    said.lang = document.documentElement.lang;
    said.onend = said.onerror = () => setReading(false);
    window.speechSynthesis.speak(said);
    setReading(true);
  };
  const Icon = reading ? CircleStop : Volume2;
  return (
    <button type="button" aria-pressed={reading} onClick={toggle} className="inline-flex min-h-11 items-center gap-1.5 rounded-md px-2 text-sm font-semibold text-in hover:bg-ground">
      <Icon aria-hidden size={16} />
      {reading ? ALOUD.stop : ALOUD.read}
    </button>
  );
}
