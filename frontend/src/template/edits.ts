/** What a teacher does to a template: each becomes a change of the draft. */
import { useState } from "react";
import type { Schema } from "../api/client";
import { newId } from "./useTemplateDraft";
import type { Edit, TemplateDraft } from "./useTemplateDraft";
import type { Kind, Laid } from "./texts";

type Section = Schema["LaidSection"];

/** The changes by name; what the server says against one stays in ``error`` until the next. */
export function useEdits(draft: TemplateDraft) {
  const [error, setError] = useState<unknown>(null);
  const push = async (edit: Edit) => {
    setError(null);
    try {
      await draft.push(edit);
    } catch (why) {
      setError(why);
      throw why;
    }
  };
  /** One whose refusal is told, and nothing hangs on it. */
  const make = (edit: Edit) => void push(edit).catch(() => undefined);
  return {
    error,
    /** Add a pocket by a line that names it; returns its id. */
    addLine: async (text: string, kind: Kind, section: number): Promise<number> => {
      const id = newId();
      await push({ do: "add_pocket", id, section, text, kind });
      return id;
    },
    /** Add a section, or one that repeats for units; returns its id. */
    addSection: async (title: string, repeats: boolean): Promise<number> => {
      const id = newId();
      await push({ do: "add_section", id, title, repeats });
      return id;
    },
    renameSection: (section: Section, title: string) => make({ do: "rename_section", section: section.id, title }),
    removeSection: (section: Section) => make({ do: "remove_section", section: section.id }),
    /** Put a section before another one (null: at the end). */
    moveSection: (section: Section, before: number | null) => make({ do: "move_section", section: section.id, before }),
    movePocket: (pocket: number, section: number, before: number | null) => make({ do: "move_pocket", pocket, section, before }),
    retire: (pocket: Laid, retired: boolean) => make({ do: "retire_pocket", pocket: pocket.id, retired }),
    /** Resolves once it is gone from the draft. */
    remove: (pocket: Laid) => push({ do: "remove_pocket", pocket: pocket.id }),
  };
}

export type Edits = ReturnType<typeof useEdits>;
