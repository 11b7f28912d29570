/** A field for rich text in a form; its editor comes when it is needed. */
import { lazy, Suspense } from "react";
import { useController } from "react-hook-form";
import type { Control, FieldPath } from "react-hook-form";
import { patiently } from "../api/patiently";
import type { Fields } from "./fields";

const RichEditor = lazy(() => patiently(() => import("./RichEditor")));

interface Props {
  label: string;
  hint?: string;
  name: Extract<FieldPath<Fields>, "directions" | `versions.${number}.directions`>;
  control: Control<Fields>;
  may: boolean;
}

export function RichField({ label, hint = "", name, control, may }: Props) {
  const { field } = useController({ control, name });
  return (
    <div>
      <span aria-hidden className={name === "directions" ? "font-bold" : ""}>
        {label} {hint && <span className="font-normal text-quiet">{hint}</span>}
      </span>
      <Suspense fallback={<div className="mt-1 min-h-29 rounded-md border border-edge bg-paper" />}>
        <RichEditor label={label} value={field.value} may={may} placeholder={hint} onChange={field.onChange} />
      </Suspense>
    </div>
  );
}
