/** Words that are the same, new and gone, in order. */
interface Props {
  parts: { what: "same" | "new" | "gone"; text: string }[];
  className?: string;
}

export function Differing({ parts, className = "" }: Props) {
  return (
    <p className={`break-words whitespace-pre-wrap ${className}`}>
      {parts.map((part, at) =>
        part.what === "gone" ? (
          <del key={at} className="bg-overdue-soft text-overdue">
            {part.text}
          </del>
        ) : part.what === "new" ? (
          <ins key={at} className="bg-accepted-soft text-accepted">
            {part.text}
          </ins>
        ) : (
          <span key={at}>{part.text}</span>
        ),
      )}
    </p>
  );
}
