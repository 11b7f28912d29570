/** Buttons: one main action a view, the rest quiet. */
import type { ComponentPropsWithRef, MouseEvent, ReactNode } from "react";

interface Props extends ComponentPropsWithRef<"button"> {
  look?: "main" | "plain" | "quiet";
  big?: boolean;
  icon?: ReactNode;
}

const LOOKS = {
  main: "bg-copper text-paper hover:bg-copper-deep border-copper aria-disabled:bg-ground aria-disabled:text-quiet aria-disabled:border-edge",
  plain: "bg-paper text-ink border-edge hover:border-control hover:bg-ground aria-disabled:text-quiet aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper",
  quiet: "bg-transparent text-copper border-transparent hover:underline aria-disabled:text-quiet",
};

/**
 * A button; ``big`` gives the 44 px that fingers need. ``disabled`` keeps it where the keyboard finds it: it does nothing,
 * and the focus is not lost while it waits.
 */
export function Button({ look = "plain", big = false, icon, children, className = "", type = "button", disabled = false, onClick, ...rest }: Props) {
  const size = big ? "min-h-11 px-5 text-base" : "min-h-8 px-3 text-sm";
  const press = (event: MouseEvent<HTMLButtonElement>) => {
    // Enter in a field of its form presses it too.
    if (disabled) event.preventDefault();
    else onClick?.(event);
  };
  return (
    <button
      type={type}
      aria-disabled={disabled || undefined}
      className={`inline-flex items-center justify-center gap-2 rounded-md border font-semibold whitespace-nowrap aria-disabled:cursor-default ${size} ${LOOKS[look]} ${className}`}
      onClick={press}
      {...rest}
    >
      {icon}
      {children}
    </button>
  );
}
