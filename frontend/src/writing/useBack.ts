/** Bringing a form's draft back, and saying so: it can be let go again, and was perhaps typed over what has changed since. */
import { useCallback, useEffect, useRef } from "react";
import { useWatch } from "react-hook-form";
import type { FieldValues, UseFormReturn } from "react-hook-form";
import { useSay } from "../ui/Toasts";
import { TEXTS } from "./texts";
import { together, useDraft } from "./useDraft";

export function useBack<T extends FieldValues>(form: UseFormReturn<T>, version: number): (kept: T, over: number) => void {
  const say = useSay();
  const { reset, getValues } = form;
  const fresh = useRef(form.formState.defaultValues);
  useEffect(() => {
    fresh.current = form.formState.defaultValues;
  });
  return useCallback(
    (kept, over) => {
      reset(together(kept, getValues(), (fresh.current ?? {}) as Partial<T>), { keepDefaultValues: true });
      say(over === version ? TEXTS.back : TEXTS.backOverOlder, () => reset());
    },
    [reset, getValues, say, version],
  );
}

/** Keep what is typed into a form until it is saved or let go: brought back after a reload, a click elsewhere, a sign-out. */
export function useKeptForm<T extends FieldValues>(name: string, form: UseFormReturn<T>, version = 0): () => void {
  const value = useWatch({ control: form.control }) as T;
  const changed = JSON.stringify(value) !== JSON.stringify(form.formState.defaultValues);
  return useDraft(name, value, version, changed, useBack(form, version));
}
