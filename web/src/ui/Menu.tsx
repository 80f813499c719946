// A menu on the Radix primitive.
import { DropdownMenu as Radix } from "radix-ui";
import type { ReactNode } from "react";

export function Menu({ trigger, children }: { trigger: ReactNode; children: ReactNode }) {
  return (
    <Radix.Root>
      <Radix.Trigger asChild>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          align="start"
          sideOffset={4}
          className="z-30 max-h-[80vh] min-w-52 overflow-auto rounded border border-rule bg-sheet p-1 text-[13px] text-ink shadow-lg"
        >
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

export function MenuItem({ onSelect, children, disabled }: { onSelect: () => void; children: ReactNode; disabled?: boolean }) {
  return (
    <Radix.Item
      disabled={disabled}
      onSelect={onSelect}
      className="flex cursor-pointer items-center gap-2 rounded px-2 py-1 outline-none data-[disabled]:opacity-40 data-[highlighted]:bg-petrol/15"
    >
      {children}
    </Radix.Item>
  );
}

export function MenuHeading({ children }: { children: ReactNode }) {
  return <Radix.Label className="px-2 pt-1.5 text-[11.5px] text-mute">{children}</Radix.Label>;
}

export function MenuRule() {
  return <Radix.Separator className="my-1 h-px bg-rule" />;
}
