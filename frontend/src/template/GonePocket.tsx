/** The address names a pocket that is not in the template: said, with what was typed for it and never saved. */
import { useQuery } from "@tanstack/react-query";
import { usePersonId } from "../api/session";
import { Notice } from "../ui/Notice";
import { findDraft } from "../writing/drafts";
import type { Fields } from "./fields";
import { TEXTS } from "./texts";

export function GonePocket({ id }: { id: number }) {
  const person = usePersonId();
  const kept = useQuery({
    queryKey: ["left", person, id],
    queryFn: async () => (await findDraft(person, `pocket/${id}`)) ?? null,
    gcTime: 0,
  });
  const fields = kept.data ? (JSON.parse(kept.data.text) as Fields) : null;
  return (
    <div className="mx-auto w-full max-w-xl p-8">
      <Notice look="info" title={TEXTS.gone} fix={TEXTS.goneFix}>
        {fields && (
          <div className="mt-3">
            <p className="font-semibold">{TEXTS.goneTyped}</p>
            {[fields.title, plain(fields.directions), fields.prompt, plain(fields.starter)].filter(Boolean).map((one) => (
              <p key={one} className="mt-1 whitespace-pre-wrap">
                {one}
              </p>
            ))}
          </div>
        )}
      </Notice>
    </div>
  );
}

/** What a rich text says. */
function plain(html: string): string {
  return new DOMParser().parseFromString(html, "text/html").body.textContent.trim();
}
