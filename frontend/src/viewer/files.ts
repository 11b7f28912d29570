/** Files by address and size. */
import type { Schema } from "../api/client";
import { TEXTS } from "./texts";

/** A size in words. */
export function sizeWords(bytes: number): string {
  if (bytes < 1024) return TEXTS.bytesBytes({ bytes });
  return bytes < 1024 * 1024 ? TEXTS.bytesKb({ bytes: Math.round(bytes / 1024) }) : TEXTS.bytesMb({ bytes: (bytes / 1024 / 1024).toFixed(1) });
}

/** The address of its bytes. */
export function fileAddress(artefact: Schema["ArtefactShape"]): string {
  return `/api/artefacts/${artefact.id}/file`;
}
