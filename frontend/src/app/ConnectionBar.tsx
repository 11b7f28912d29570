/** Says when the server is away, and when it is there again. */
import { CloudOff } from "lucide-react";
import { useConnection } from "../api/connection";
import { TEXTS } from "./texts";

export function ConnectionBar() {
  const away = useConnection() === "away";
  return (
    <div role="status" className={away ? "flex items-center gap-2 bg-late px-5 py-2 text-late-ink" : ""}>
      {away && (
        <>
          <CloudOff aria-hidden size={18} className="shrink-0" />
          <span>{TEXTS.away}</span>
        </>
      )}
    </div>
  );
}
