/** A field for rich text in a form; its editor comes when it is needed. */
import { lazy, Suspense } from "react";
import { useController } from "react-hook-form";
import type { Control, FieldPath, FieldValues } from "react-hook-form";
import { patiently } from "../../api/patiently";

const RichEditor = lazy(() => patiently(() => import("./RichEditor")));

interface Props<T extends FieldValues> {
  label: string;
  hint?: string;
  name: FieldPath<T>;
  control: Control<T>;
  may: boolean;
  /** Below another field of the same thing. */
  lesser?: boolean;
}

export function RichField<T extends FieldValues>({ label, hint = "", name, control, may, lesser = false }: Props<T>) {
  const { field } = useController({ control, name });
  return (
    <div>
      <span aria-hidden className={lesser ? "" : "font-bold"}>
        {label} {hint && <span className="font-normal text-quiet">{hint}</span>}
      </span>
      <Suspense fallback={<div className="mt-1 min-h-29 rounded-md border border-edge bg-paper" />}>
        <RichEditor label={label} value={field.value} may={may} placeholder={hint} onChange={field.onChange} />
      </Suspense>
    </div>
  );
}
