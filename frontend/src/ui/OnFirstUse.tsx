/** Buttons whose menus are loaded when somebody comes near them: none of it is needed to see the page. */
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
const menus = () => patiently(() => import("./menus"));

/** One of the menus, with what stands in it at hand. */
export function OnFirstUse<K extends Kind>({ kind, ...props }: { kind: K } & ComponentProps<(typeof Menus)[K]>) {
  return <Later kind={kind} load={() => menus().then((found) => found[kind] as unknown as ComponentType<typeof props>)} {...props} />;
}

interface Loading<P> {
  kind: Kind;
  /** Answers with what takes the button's place: a menu of this kind with what stands in it. */
  load: () => Promise<ComponentType<P>>;
}

/** The same where also what stands in it comes later; ``load`` may be another function each time. */
export function Later<P extends { face: Face }>({ kind, load, ...rest }: Loading<P> & P) {
  // What is left of both is what the menu takes.
  const props = rest as unknown as P;
  const [Loaded, setLoaded] = useState<ComponentType<P> | null>(null);
  const place = useRef<HTMLSpanElement>(null);
  const asked = useRef(false);
  const near = () => {
    load().catch(() => undefined);
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
      .then((found) => setLoaded(() => found))
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
