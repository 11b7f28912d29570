/** How the signed-in person likes to read, and putting it on the page. */
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Schema } from "../../api/client";
import { sessionQuery } from "../../api/queries";
import { setTheme } from "../theme";

export type Reading = Schema["ReadingShape"];

export const USUAL: Reading = { theme: "system", keys: true, face: "hyperlegible", size: 100, spacing: "usual", tint: "none", ruler: false, pace: 100, helped: [] };

function useOwn(): Reading | undefined {
  return useQuery(sessionQuery).data?.person?.reading;
}

/** The settings; the usual ones for whoever is not signed in. */
export function useReading(): Reading {
  return useOwn() ?? USUAL;
}

/** Put the settings on the whole page; the theme has their styles. */
export function useReadingOnPage(): Reading {
  const own = useOwn();
  const reading = own ?? USUAL;
  useEffect(() => {
    // Signed out, the page stays in the theme it was in.
    if (own) setTheme(own.theme);
  }, [own]);
  useEffect(() => {
    const { dataset } = document.documentElement;
    dataset.face = reading.face;
    dataset.size = String(reading.size);
    dataset.spacing = reading.spacing;
    dataset.tint = reading.tint;
  }, [reading]);
  return reading;
}
