// The palette (Ctrl K), the keys themselves, and the list of keys (?).
import { Command, defaultFilter } from "cmdk";
import { useCallback, useEffect, useState } from "react";
import { tinykeys } from "tinykeys";
import { HelpDialog } from "../help/HelpDialog";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import type { Action } from "./actions";
import { GROUPS, useActions } from "./actions";
import { useFound } from "./found";
import { setSingleKeys, singleKeysOn } from "./singleKeys";

function isTyping(event: KeyboardEvent): boolean {
  return event.target instanceof HTMLElement && event.target.closest("input, select, textarea, [role=dialog], [role=grid]") !== null;
}

/** A field with text of its own has its own undo. */
function isEditing(event: KeyboardEvent): boolean {
  return event.target instanceof HTMLInputElement && event.target.dataset.typing === "true";
}

export function Keys() {
  const [palette, setPalette] = useState(false);
  const [list, setList] = useState(false);
  const showKeys = useCallback(() => {
    setList(true);
  }, []);
  const [help, setHelp] = useState(false);
  const showHelp = useCallback(() => {
    setHelp(true);
  }, []);
  const actions = useActions(showKeys, showHelp);

  useEffect(() => {
    const bound: Record<string, (event: KeyboardEvent) => void> = {
      "$mod+k": (event) => {
        event.preventDefault();
        setPalette(true);
      },
    };
    for (const action of actions) {
      const keys = action.keys;
      if (keys === undefined) continue;
      const single = !keys.includes("+");
      bound[keys === "?" ? "Shift+?" : keys] = (event) => {
        if (single ? isTyping(event) || !singleKeysOn() : isEditing(event)) return;
        event.preventDefault();
        action.run();
      };
    }
    bound["$mod+y"] = bound["$mod+Shift+z"]!;
    return tinykeys(window, bound);
  }, [actions]);

  return (
    <>
      <Button
        kind="bar"
        title="Find anything (Ctrl K)"
        onClick={() => {
          setPalette(true);
        }}
      >
        Find <kbd className="font-narrow text-[11px]">Ctrl K</kbd>
      </Button>
      <Button kind="bar" title="Start guide, ways of working, terms" onClick={showHelp}>
        Help
      </Button>
      {help && (
        <HelpDialog
          close={() => {
            setHelp(false);
          }}
          showKeys={() => {
            setHelp(false);
            setList(true);
          }}
        />
      )}
      <Palette open={palette} onOpenChange={setPalette} actions={actions} />
      <KeyList open={list} onOpenChange={setList} actions={actions} />
    </>
  );
}

interface SheetProps {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  actions: readonly Action[];
}

function Palette({ open, onOpenChange, actions }: SheetProps) {
  return (
    <Modal open={open} onOpenChange={onOpenChange} title="Find" bare>
      <Finder
        actions={actions}
        close={() => {
          onOpenChange(false);
        }}
      />
    </Modal>
  );
}

/** Lists of hundreds come up once something is typed. */
const LONG: ReadonlySet<string> = new Set(["Fields", "Formulas", "Files"]);

const SENTENCE_LETTERS = 60;

/** What holds every word that is typed comes first; of a sentence nothing less counts, since its letters are in most of them. */
function scored(value: string, sought: string, keywords?: string[]): number {
  const words = sought.toLowerCase().split(/\s+/);
  const held = words.every((word) => value.toLowerCase().includes(word));
  const loose = defaultFilter(value, sought, keywords);
  return held ? (1 + loose) / 2 : value.length > SENTENCE_LETTERS ? 0 : loose / 4;
}

function Finder({ actions, close }: { actions: readonly Action[]; close: () => void }) {
  const [sought, setSought] = useState("");
  const found = useFound();
  const all = [...actions, ...found];
  return (
    <Command label="Find an action" filter={scored} className="flex max-h-[70vh] flex-col">
      <Command.Input
        value={sought}
        onValueChange={setSought}
        placeholder="A step, a tab, a field, a zone, a finding, a formula, a file…"
        className="w-full border-b border-rule bg-transparent px-3 py-2 text-[14px] outline-none placeholder:text-mute"
      />
      <Command.List className="min-h-0 overflow-y-auto p-1.5">
        <Command.Empty className="px-2 py-3 text-mute">Nothing of that name.</Command.Empty>
        {GROUPS.filter((group) => sought !== "" || !LONG.has(group)).map((group) => {
          const members = all.filter((a) => a.group === group);
          return members.length === 0 ? null : (
            <Command.Group
              key={group}
              heading={group}
              className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-1.5 [&_[cmdk-group-heading]]:text-[11.5px] [&_[cmdk-group-heading]]:text-mute"
            >
              {members.map((action) => (
                <Command.Item
                  key={action.id}
                  value={`${action.title} ${action.id}`}
                  onSelect={() => {
                    close();
                    action.run();
                  }}
                  className="flex items-center gap-2 rounded px-2 py-1 data-[selected=true]:bg-petrol/15"
                >
                  <span className="truncate">{action.title}</span>
                  {action.keys && <kbd className="ml-auto font-narrow text-[11.5px] text-mute">{keyWords(action.keys)}</kbd>}
                </Command.Item>
              ))}
            </Command.Group>
          );
        })}
      </Command.List>
    </Command>
  );
}

function keyWords(keys: string): string {
  return keys.replace("$mod", "Ctrl").replaceAll("+", " ").replace(/ z$/, " Z");
}

const OTHERS: readonly (readonly [string, string])[] = [
  ["Ctrl K", "Find anything"],
  ["↑ ↓ ← →", "Move the focused shoe, top or profile point; with Shift ten times as far"],
  ["0 … 9, Enter", "Type over the focused shoe, top or point; double click does too"],
  ["Insert, Delete", "Add a profile point after the focused one, or remove it"],
  ["Alt", "Held while dragging: without snapping, or with it where it is off"],
  ["Escape", "Drop what is being dragged or typed"],
  ["Enter, F2", "Edit the cell of a table; any character replaces it"],
  ["Ctrl C, X, V", "Copy, cut and paste cells, blocks from spreadsheets too"],
  ["Shift arrows", "Select cells; Shift Space the row, Ctrl Space the column, Ctrl A all"],
  ["Ctrl D", "Fill down: the first selected row, or the row above, into the selected cells"],
  ["Ctrl Enter", "Add a row to the table; Ctrl Shift Enter inserts one above, Ctrl Delete removes the selected"],
  ["Alt Shift ← →", "Make the column narrower or wider; its edge can be dragged"],
  ["Menu key", "What can be done with the selected cells"],
  ["wheel", "Zoom the depth axis at the pointer; drag pans, double click fits"],
  ["+ − 0", "Zoom the depth axis in, out, and fit"],
];

function KeyList({ open, onOpenChange, actions }: SheetProps) {
  const [single, setSingle] = useState(singleKeysOn);
  const rows = [...actions.filter((a) => a.keys).map((a) => [keyWords(a.keys!), a.title] as const), ...OTHERS];
  return (
    <Modal open={open} onOpenChange={onOpenChange} title="Keys">
      <div className="min-h-0 overflow-y-auto" tabIndex={0} role="region" aria-label="List of keys">
        <dl className="grid grid-cols-[7rem_1fr] gap-y-0.5">
          {rows.map(([keys, title]) => (
            <div key={keys + title} className="contents">
              <dt>
                <kbd className="font-narrow">{keys}</kbd>
              </dt>
              <dd className="text-mute">{title}</dd>
            </div>
          ))}
        </dl>
      </div>
      <label className="mt-3 flex items-center gap-2 border-t border-rule pt-2">
        <input
          type="checkbox"
          className="size-3.5 accent-petrol"
          checked={single}
          onChange={(event) => {
            setSingleKeys(event.target.checked);
            setSingle(event.target.checked);
          }}
        />
        Single keys without Ctrl
      </label>
    </Modal>
  );
}
