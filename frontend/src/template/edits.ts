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
  const push = async (...made: Edit[]) => {
    setError(null);
    try {
      await draft.push(...made);
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
    /** Add a pocket as it lay in the cupboard, with its files, at the end of a section; returns its id. */
    addFetched: async ({ settings, files }: Schema["FetchedPocket"], section: number): Promise<number> => {
      const id = newId();
      const text = settings.title.replace(/[:\r\n]+/g, " ");
      await push(
        // The line names it only; what it asks for is said by its settings.
        { do: "add_pocket", id, section, text, kind: settings.kind },
        { do: "change_pocket", pocket: id, settings: { ...settings, version: 0, hand: null } },
        ...files.map((file): Edit => ({ do: "give_file", pocket: id, file: file.id })),
      );
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
    remove: (pocket: Pick<Laid, "id">) => push({ do: "remove_pocket", pocket: pocket.id }),
  };
}

export type Edits = ReturnType<typeof useEdits>;
