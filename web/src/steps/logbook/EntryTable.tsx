// Several entries at once, a row each: what most of them have in common as columns; written together, or none of them.
import { useState } from "react";
import { saidOf } from "../../design/api";
import { personName } from "../../design/person";
import { useReference } from "../../design/reference";
import type { EntryKind, NewEntry } from "../../design/types";
import { Button } from "../../ui/Button";
import { useUnits } from "../../ui/units";
import { EntryField } from "./EntryField";
import type { Values } from "./fields";
import { asEntry, at, clock, keysOf, kindOf } from "./fields";
import { useWriteLog } from "./useLog";

const COLUMNS: readonly (keyof NewEntry)[] = ["string", "md_ft", "mud_ppg", "hours", "text"];
/** Kinds that a row can say whole. */
const KINDS: readonly EntryKind[] = ["depth", "mud", "shoe landed", "losses", "kick", "equipment", "spud", "note"];

interface Row {
  kind: EntryKind;
  values: Values;
}

export function EntryTable({ onDone, onCancel }: { onDone: () => void; onCancel: () => void }) {
  const reference = useReference();
  const units = useUnits();
  const write = useWriteLog();
  const [rows, setRows] = useState<Row[]>([{ kind: "depth", values: { at: clock() } }]);
  const [said, setSaid] = useState("");
  const change = (place: number, patch: Partial<Row>) => {
    setRows(rows.map((row, i) => (i === place ? { ...row, ...patch } : row)));
  };
  const words = (path: string) => {
    const [, , row = "0", key = ""] = path.split("/");
    return `row ${Number(row) + 1}, ${reference.find(at(key))?.title ?? key}`;
  };
  const send = () => {
    write(rows.map((row) => asEntry(reference, row.kind, { author: personName(), ...row.values }))).then(onDone, (error: unknown) => {
      setSaid(saidOf(error, words));
    });
  };
  const has = (kind: EntryKind, key: keyof NewEntry) => key === "text" || key === "hours" || keysOf(reference, kind).includes(key);
  return (
    <form
      aria-label="Several entries"
      className="bordered"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <table className="w-full border-collapse text-[12.5px]" aria-label="New entries">
        <thead>
          <tr className="text-left text-[11.5px] text-mute">
            {(["at", "kind", ...COLUMNS] as const).map((key) => {
              const { title, quantity } = reference.at(at(key));
              return (
                <th key={key} scope="col" className="pr-1 font-normal">
                  {title}
                  {quantity ? `, ${units.unit(quantity)}` : ""}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i} className="align-top" data-row={i}>
              <td className="w-[8.6rem]">
                <EntryField
                  name="at"
                  value={row.values.at}
                  needed
                  bare
                  onChange={(value) => change(i, { values: { ...row.values, at: value } })}
                />
              </td>
              <td className="w-28">
                <select
                  className="cell bg-sheet"
                  aria-label={`Entry, row ${i + 1}`}
                  value={row.kind}
                  onChange={(event) => {
                    change(i, { kind: event.target.value as EntryKind });
                  }}
                >
                  {KINDS.map((kind) => (
                    <option key={kind} value={kind}>
                      {kindOf(reference, kind).title}
                    </option>
                  ))}
                </select>
              </td>
              {COLUMNS.map((key) => (
                <td key={key} className={key === "text" ? "" : "w-20"}>
                  {has(row.kind, key) && (
                    <EntryField
                      name={key}
                      value={row.values[key]}
                      needed={false}
                      bare
                      onChange={(value) => change(i, { values: { ...row.values, [key]: value } })}
                    />
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1.5 flex flex-wrap items-center gap-2">
        <Button onClick={() => setRows([...rows, { kind: rows[rows.length - 1]!.kind, values: { at: rows[rows.length - 1]!.values.at } }])}>
          Another row
        </Button>
        {rows.length > 1 && <Button onClick={() => setRows(rows.slice(0, -1))}>Drop the last</Button>}
        <Button kind="act" type="submit">
          {rows.length === 1 ? "Write 1 entry" : `Write ${rows.length} entries`}
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </p>
      {said !== "" && (
        <p role="alert" className="mt-1 text-[12.5px] text-brick">
          Nothing was written. {said}.
        </p>
      )}
    </form>
  );
}
