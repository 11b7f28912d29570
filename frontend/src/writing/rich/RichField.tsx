/** A field for rich text in a form; its editor comes when it is needed. */
import { lazy, Suspense, useId } from "react";
import { useController } from "react-hook-form";
import type { Control, FieldPath, FieldValues } from "react-hook-form";
import { patiently } from "../../api/patiently";

const RichEditor = lazy(() => patiently(() => import("./RichEditor")));
const PageEditor = lazy(() => patiently(() => import("../editor/PageEditor")));

interface Props<T extends FieldValues> {
  label: string;
  hint?: string;
  name: FieldPath<T>;
  control: Control<T>;
  may: boolean;
  /** Below another field of the same thing. */
  lesser?: boolean;
  /** What stands in a page of students of this class: with all that a page has, but pictures. */
  pageIn?: number;
}

export function RichField<T extends FieldValues>({ label, hint = "", name, control, may, lesser = false, pageIn }: Props<T>) {
  const id = useId();
  const { field } = useController({ control, name });
  return (
    <div>
      <span aria-hidden className={lesser ? "" : "font-bold"}>
        {label} {hint && <span id={id} className="font-normal text-quiet">{hint}</span>}
      </span>
      <Suspense fallback={<div className="mt-1 min-h-29 rounded-md border border-edge bg-paper" />}>
        {pageIn === undefined ? (
          <RichEditor label={label} value={field.value} may={may} placeholder={hint} onChange={field.onChange} />
        ) : (
          <PageEditor label={label} value={field.value} writable={may} describedBy={id} groupId={pageIn} portfolio={0} onChange={field.onChange} />
        )}
      </Suspense>
    </div>
  );
}
