/** A dialog over the page: focus stays in it, Escape closes it, focus returns to where it was. */
import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";
import { X } from "lucide-react";
import type { ReactNode } from "react";
import { useReturnFocus } from "./useReturnFocus";
import { TEXTS } from "./texts";

interface Props {
  title: string;
  onClose: () => void;
  children: ReactNode;
  /** Over most of the screen, for what is looked at. */
  wide?: boolean;
  /** For a few fields. */
  narrow?: boolean;
  /** Only read: nothing in it takes the keyboard, so what scrolls does. */
  read?: boolean;
}

export function Modal({ title, onClose, children, wide = false, narrow = false, read = false }: Props) {
  useReturnFocus();
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-shade/50" />
      <div className="fixed inset-0 flex items-center justify-center p-4 max-sm:p-0">
        <DialogPanel className={`flex max-h-full w-full flex-col rounded-lg bg-paper text-base text-ink shadow-lg max-sm:min-h-full max-sm:rounded-none ${wide ? "max-w-6xl" : narrow ? "max-w-lg" : "max-w-2xl"}`}>
          <div className="flex items-start gap-3 border-b border-line py-2 pr-2 pl-5">
            <DialogTitle className="min-w-0 flex-1 self-center text-lg break-words">{title}</DialogTitle>
            <button type="button" aria-label={TEXTS.close} onClick={onClose} className="flex size-11 shrink-0 items-center justify-center rounded-md text-ink-soft hover:bg-ground">
              <X aria-hidden size={20} />
            </button>
          </div>
          {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reached by the keyboard */}
          <div tabIndex={read ? 0 : undefined} className="flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5">
            {children}
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
