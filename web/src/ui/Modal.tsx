// A dialog on the Radix primitive: one frame for all.
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

interface ModalProps {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  /** The title is read out but not drawn. */
  bare?: boolean;
  width?: string;
  children: ReactNode;
}

export function Modal({ open, onOpenChange, title, bare = false, width = "w-[34rem]", children }: ModalProps) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed top-20 left-1/2 z-30 flex max-h-[78vh] max-w-[96vw] -translate-x-1/2 flex-col overflow-hidden rounded border border-rule bg-sheet shadow-lg ${width} ${bare ? "" : "p-4"}`}
        >
          <Dialog.Title className={bare ? "sr-only" : "mb-2 shrink-0 pr-6 text-[14px] font-semibold"}>{title}</Dialog.Title>
          {!bare && (
            <Dialog.Close asChild>
              <button type="button" aria-label="Close" className="absolute top-3 right-3 text-mute hover:text-ink">
                <X size={15} aria-hidden />
              </button>
            </Dialog.Close>
          )}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
