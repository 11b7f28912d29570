/** A box that says what happened and what to do. */
import { CircleAlert, Info } from "lucide-react";
import type { ReactNode } from "react";

interface Props {
  title: string;
  fix?: string | undefined;
  look?: "error" | "info";
  children?: ReactNode;
}

/** Read out as it appears; errors at once, information politely. */
export function Notice({ title, fix, look = "error", children }: Props) {
  const error = look === "error";
  const Icon = error ? CircleAlert : Info;
  return (
    <div
      role={error ? "alert" : "status"}
      className={`flex gap-3 rounded-md border p-3 ${error ? "border-overdue bg-overdue-soft" : "border-edge bg-in-soft"}`}
    >
      <Icon aria-hidden size={18} className={`mt-0.5 shrink-0 ${error ? "text-overdue" : "text-in"}`} />
      <div className="min-w-0 flex-1 break-words">
        <p className="font-semibold">{title}</p>
        {fix && <p>{fix}</p>}
        {children}
      </div>
    </div>
  );
}
