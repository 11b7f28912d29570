/** How the signed-in person likes to read, and putting it on the page. */
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Schema } from "../api/client";
import { sessionQuery } from "../api/queries";

export type Reading = Schema["ReadingShape"];

export const USUAL: Reading = { face: "hyperlegible", size: 100, spacing: "usual", tint: "none", ruler: false, pace: 100 };

/** The settings; the usual ones for whoever is not signed in. */
export function useReading(): Reading {
  return useQuery(sessionQuery).data?.person?.reading ?? USUAL;
}

/** Put the settings on the whole page; the theme has their styles. */
export function useReadingOnPage(): Reading {
  const reading = useReading();
  useEffect(() => {
    const { dataset } = document.documentElement;
    dataset.face = reading.face;
    dataset.size = String(reading.size);
    dataset.spacing = reading.spacing;
    dataset.tint = reading.tint;
  }, [reading]);
  return reading;
}
