/** A class list on its way in. */
import type { Schema } from "../api/client";

export type Table = Schema["TableShape"];
export type Preview = Schema["RosterPreview"];
