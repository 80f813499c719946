// What opens below a button of the bar: one frame for units, person and account.
import { Popover } from "radix-ui";
import type { ReactNode } from "react";

interface BarPopoverProps {
  /** What the panel is called, read out when it opens. */
  label: string;
  trigger: ReactNode;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  children: ReactNode;
}

export function BarPopover({ label, trigger, open, onOpenChange, children }: BarPopoverProps) {
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label={label}
          className="z-30 w-72 rounded border border-rule bg-sheet p-3 text-[13px] text-ink shadow-lg"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
