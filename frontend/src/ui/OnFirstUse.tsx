/** A button whose menu is loaded when somebody comes near it: none of it is needed to see the page. */
import { useEffect, useRef, useState } from "react";
import type { ComponentProps, ComponentType, ReactNode } from "react";
import { patiently } from "../api/patiently";
import type * as Menus from "./menus";

/** The button as it stands in the page. */
export interface Face {
  label?: string | undefined;
  className: string;
  content: ReactNode;
  /** Done as somebody comes near it. */
  onNear?: () => void;
}

type Kind = "Actions" | "Choices" | "Panel";
const load = () => patiently(() => import("./menus"));

export function OnFirstUse<K extends Kind>({ kind, ...props }: { kind: K } & ComponentProps<(typeof Menus)[K]>) {
  const [Loaded, setLoaded] = useState<ComponentType<typeof props> | null>(null);
  const place = useRef<HTMLSpanElement>(null);
  const asked = useRef(false);
  const near = () => {
    void load();
    props.face.onNear?.();
  };
  useEffect(() => {
    if (!Loaded) return;
    const button = place.current?.querySelector("button");
    button?.focus();
    // As a hand does it: the panel by a click, menus by the arrow that leads into them.
    if (kind === "Panel") button?.click();
    else button?.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowDown", bubbles: true }));
  }, [Loaded, kind]);
  const open = () => {
    if (asked.current) return;
    asked.current = true;
    load()
      .then((found) => setLoaded(() => found[kind] as unknown as ComponentType<typeof props>))
      .catch(() => (asked.current = false));
  };
  return (
    <span ref={place} className="contents">
      {Loaded ? (
        <Loaded {...props} />
      ) : (
        <button
          type="button"
          aria-label={props.face.label}
          aria-haspopup={kind === "Actions" ? "menu" : kind === "Choices" ? "listbox" : "true"}
          aria-expanded={false}
          className={props.face.className}
          onPointerEnter={near}
          onFocus={near}
          onClick={open}
          onKeyDown={(event) => (event.key === "ArrowDown" ? open() : undefined)}
        >
          {props.face.content}
        </button>
      )}
    </span>
  );
}
