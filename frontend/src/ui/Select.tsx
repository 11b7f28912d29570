/** A choice of one that does something at once: nothing happens while one only walks along what there is to choose. */
import { ChevronDown } from "lucide-react";
import { OnFirstUse } from "./OnFirstUse";

interface Props {
  label: string;
  /** The label is only heard. */
  heard?: boolean;
  value: string;
  options: { value: string; shown: string }[];
  onChange: (value: string) => void;
}

export function Select({ label, heard = false, value, options, onChange }: Props) {
  const shown = options.find((one) => one.value === value)?.shown ?? "";
  return (
    <span className="flex min-w-0 flex-wrap items-center gap-2">
      {!heard && (
        <span aria-hidden className="font-semibold">
          {label}
        </span>
      )}
      <OnFirstUse
        kind="Choices"
        face={{
          label: `${label}: ${shown}`,
          className: "flex min-h-9 max-w-72 items-center gap-2 rounded-md border border-control bg-paper px-3 text-left",
          content: (
            <>
              <span className="min-w-0 truncate">{shown}</span>
              <ChevronDown aria-hidden size={15} className="shrink-0" />
            </>
          ),
        }}
        value={value}
        options={options}
        onChange={(chosen) => chosen !== value && onChange(chosen)}
      />
    </span>
  );
}
