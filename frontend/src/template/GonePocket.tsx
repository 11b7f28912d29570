/** The address names a pocket that is not in the template: said, with what was typed for it and never saved. */
import { Notice } from "../ui/Notice";
import { plain } from "./plain";
import { TEXTS } from "./texts";
import type { ChangePocket } from "./useTemplateDraft";

export function GonePocket({ pending }: { pending: ChangePocket | undefined }) {
  const typed = pending?.settings;
  return (
    <div className="mx-auto w-full max-w-xl p-8">
      <Notice look="info" title={TEXTS.gone} fix={TEXTS.goneFix}>
        {typed && (
          <div className="mt-3">
            <p className="font-semibold">{TEXTS.goneTyped}</p>
            {[typed.title, plain(typed.directions), typed.prompt, plain(typed.starter)].filter(Boolean).map((one) => (
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
