/** The search of the top bar: finds students by any part of their name; "/" goes there. */
import { Search } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { useAddress } from "../ui/address";
import { isTyped, useLetterKeys } from "../ui/keys";
import { TEXTS } from "./texts";

export function FindStudent({ groupId }: { groupId: number }) {
  const field = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const [address, setAddress] = useAddress();
  const pegs = `/g/${groupId}/pegs`;
  const here = pathname === pegs;
  const asked = here ? (address.get("find") ?? "") : "";
  // The field has its own text: the address follows a moment later, and fast fingers must not lose a letter.
  const [typed, setTyped] = useState(asked);
  const [seen, setSeen] = useState(asked);
  if (asked !== seen) {
    setSeen(asked);
    // Coming back to a search, the field says what hides the others.
    if (asked === "" || typed === "") setTyped(asked);
  }
  const letters = useLetterKeys();
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!letters || event.key !== "/" || isTyped(event)) return;
      event.preventDefault();
      field.current?.focus();
    };
    document.addEventListener("keydown", listen);
    return () => document.removeEventListener("keydown", listen);
  }, [letters]);
  const find = (text: string) => {
    setTyped(text);
    if (!here) return void navigate(`${pegs}?find=${encodeURIComponent(text)}`);
    setAddress(
      (old) => {
        const next = new URLSearchParams(old);
        if (text) next.set("find", text);
        else next.delete("find");
        return next;
      },
      { replace: true },
    );
  };
  return (
    <label className="relative ml-auto min-w-0 max-sm:order-last max-sm:w-full max-sm:pb-2">
      <span className="sr-only">{TEXTS.find}</span>
      <Search aria-hidden size={15} className="pointer-events-none absolute top-2 left-3 text-bar-text" />
      <input
        ref={field}
        type="search"
        value={typed}
        onChange={(event) => find(event.target.value)}
        placeholder={`${TEXTS.find}   /`}
        className="min-h-8 w-64 rounded-md max-md:w-46 max-sm:w-full bg-bar-soft pr-2 pl-9 text-bar-ink placeholder:text-bar-text"
      />
    </label>
  );
}
