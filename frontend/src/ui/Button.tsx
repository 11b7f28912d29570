/** Buttons: one main action a view, the rest quiet. */
import type { ButtonHTMLAttributes, ReactNode } from "react";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: "main" | "plain" | "quiet";
  big?: boolean;
  icon?: ReactNode;
}

const LOOKS = {
  main: "bg-copper text-paper hover:bg-copper-deep border-copper disabled:bg-ground disabled:text-quiet disabled:border-edge",
  plain: "bg-paper text-ink border-edge hover:border-control hover:bg-ground disabled:text-quiet",
  quiet: "bg-transparent text-copper border-transparent hover:underline disabled:text-quiet",
};

/** A button; ``big`` gives the 44 px that fingers need. */
export function Button({ look = "plain", big = false, icon, children, className = "", type = "button", ...rest }: Props) {
  const size = big ? "min-h-11 px-5 text-base" : "min-h-8 px-3 text-sm";
  return (
    <button
      type={type}
      className={`inline-flex items-center justify-center gap-2 rounded-md border font-semibold whitespace-nowrap ${size} ${LOOKS[look]} ${className}`}
      {...rest}
    >
      {icon}
      {children}
    </button>
  );
}
