// The menu of a table's cells, opened by the second button, a long touch, or the menu key.
import { ContextMenu as Radix } from "radix-ui";
import type { ReactNode } from "react";
import type { GridState } from "./useGrid";

interface GridMenuProps {
  grid: GridState;
  rowCount: number;
  children: ReactNode;
}

interface Entry {
  title: string;
  keys?: string;
  run: () => void;
  off?: boolean;
}

export function GridMenu({ grid, rowCount, children }: GridMenuProps) {
  const { from, to } = grid.span;
  const many = to.row > from.row;
  const copy = (then: () => void) => {
    navigator.clipboard.writeText(grid.copied()).then(then, grid.refuseClipboard);
  };
  const paste = () => {
    navigator.clipboard.readText().then((text) => void grid.paste(text), grid.refuseClipboard);
  };
  const groups: readonly (readonly Entry[])[] = [
    [
      {
        title: "Cut",
        keys: "Ctrl X",
        run: () => {
          copy(grid.cut);
        },
      },
      {
        title: "Copy",
        keys: "Ctrl C",
        run: () => {
          copy(() => undefined);
        },
      },
      { title: "Paste", keys: "Ctrl V", run: paste },
    ],
    [
      { title: "Fill down", keys: "Ctrl D", run: grid.fillDown, off: !many && from.row === 0 },
      { title: "Clear", keys: "Delete", run: grid.clear },
    ],
    [
      {
        title: "Insert row above",
        keys: "Ctrl Shift Enter",
        run: () => {
          grid.insert(false);
        },
      },
      {
        title: "Insert row below",
        run: () => {
          grid.insert(true);
        },
      },
      ...(grid.movable
        ? [
            {
              title: "Move up",
              keys: "Alt ↑",
              run: () => {
                grid.moveTo(from.row - 1);
              },
              off: from.row === 0,
            },
            {
              title: "Move down",
              keys: "Alt ↓",
              run: () => {
                grid.moveTo(to.row + 2);
              },
              off: to.row === rowCount - 1,
            },
          ]
        : []),
      { title: many ? "Remove rows" : "Remove row", keys: "Ctrl Delete", run: grid.remove, off: !grid.mayRemove },
    ],
    [
      {
        title: "Select row",
        keys: "Shift Space",
        run: () => {
          grid.selectRows(from.row, false);
        },
      },
      {
        title: "Select column",
        keys: "Ctrl Space",
        run: () => {
          grid.selectColumns(from.column, false);
        },
      },
      { title: "Select all", keys: "Ctrl A", run: grid.selectAll },
    ],
  ];
  return (
    <Radix.Root>
      <Radix.Trigger asChild disabled={rowCount === 0 || grid.editing !== null}>
        {children}
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          className="z-40 min-w-56 rounded border border-rule bg-sheet p-1 text-[13px] text-ink shadow-lg"
          // the table takes the focus back itself, to the cell that the entry led to
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            grid.refocus();
          }}
        >
          {groups.map((entries, k) => (
            <div key={k}>
              {k > 0 && <Radix.Separator className="my-1 h-px bg-rule" />}
              {entries.map((entry) => (
                <Radix.Item
                  key={entry.title}
                  disabled={entry.off}
                  onSelect={entry.run}
                  className="flex cursor-pointer items-center gap-4 rounded px-2 py-1 outline-none data-[disabled]:opacity-40 data-[highlighted]:bg-petrol/15"
                >
                  {entry.title}
                  {entry.keys && <kbd className="ml-auto font-narrow text-[11.5px] text-mute">{entry.keys}</kbd>}
                </Radix.Item>
              ))}
            </div>
          ))}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
