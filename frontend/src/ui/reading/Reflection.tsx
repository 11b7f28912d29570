/** A student's own words: brass at the left edge. */
import { TEXTS } from "../texts";
export function Reflection({ text, title = TEXTS.reflection, clamp = false }: { text: string; title?: string; clamp?: boolean }) {
  if (!text.trim()) return <p className="text-quiet">{TEXTS.nothingWritten}</p>;
  return (
    <div className="border-l-3 border-brass pl-3">
      <h3 className="font-bold">{title}</h3>
      <p className={`break-words whitespace-pre-wrap ${clamp ? "line-clamp-6" : ""}`}>{text}</p>
    </div>
  );
}
