// An entry by form: the fields of its kind, with what must be there marked. Nothing is written before the server has taken it.
import { useState } from "react";
import { saidOf } from "../../design/api";
import { personName } from "../../design/person";
import { useReference } from "../../design/reference";
import type { EntryKind, NewEntry } from "../../design/types";
import { Button } from "../../ui/Button";
import { Hint } from "../../ui/Term";
import { EntryField } from "./EntryField";
import type { Values } from "./fields";
import { asEntry, at, clock, keysOf, kindOf } from "./fields";
import { useWriteLog } from "./useLog";

interface EntryFormProps {
  kind: EntryKind;
  initial: Values;
  /** What the button says. */
  action: string;
  onDone: () => void;
  onCancel?: () => void;
  /** Whether another kind can be chosen. */
  anyKind?: boolean;
}

const CHOSEN: readonly EntryKind[] = [
  "depth", "mud", "shoe landed", "tally", "cement", "returns", "leak-off test", "survey", "kick", "losses", "test", "equipment", "spud", "note",
]; // prettier-ignore

export function EntryForm({ kind: first, initial, action, onDone, onCancel, anyKind = false }: EntryFormProps) {
  const reference = useReference();
  const write = useWriteLog();
  const [kind, setKind] = useState(first);
  const [values, setValues] = useState<Values>({ at: clock(), author: personName(), ...initial });
  const [said, setSaid] = useState("");
  const [busy, setBusy] = useState(false);
  const set = (key: keyof NewEntry, value: unknown) => {
    setValues((held) => ({ ...held, [key]: value }));
  };
  const { needs } = kindOf(reference, kind);
  const words = (path: string) => reference.find(path.replace("/entries/", "/log/"))?.title ?? "Entry";
  const send = () => {
    setBusy(true);
    write([asEntry(reference, kind, values)])
      .then(onDone, (error: unknown) => {
        setSaid(saidOf(error, words));
      })
      .finally(() => {
        setBusy(false);
      });
  };
  const row = (key: keyof NewEntry) => {
    const { title, help } = reference.at(at(key));
    return (
      <div key={key} className="contents">
        <span>
          <Hint text={title} hint={help === "" ? "" : `${title}: ${help}.`} />
          {(key === "at" || needs.includes(key)) && <span aria-hidden> *</span>}
        </span>
        <EntryField name={key} value={values[key]} needed={needs.includes(key)} onChange={(value) => set(key, value)} />
      </div>
    );
  };
  return (
    <form
      className="bordered grid max-w-xl grid-cols-[10.5rem_minmax(0,1fr)] items-center gap-x-2 text-[13px]"
      aria-label="Entry of the log"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      {anyKind && (
        <>
          <span>Entry</span>
          <select
            className="cell bg-sheet"
            aria-label="Entry"
            value={kind}
            onChange={(event) => {
              setKind(event.target.value as EntryKind);
              setSaid("");
            }}
          >
            {CHOSEN.map((k) => (
              <option key={k} value={k}>
                {kindOf(reference, k).title}
              </option>
            ))}
          </select>
        </>
      )}
      {row("at")}
      {keysOf(reference, kind).map(row)}
      {kind !== "spud" && kind !== "note" && row("hours")}
      {row("text")}
      {row("author")}
      <p className="col-span-2 mt-1.5 flex items-center gap-2">
        <Button kind="act" type="submit" disabled={busy}>
          {action}
        </Button>
        {onCancel && <Button onClick={onCancel}>Cancel</Button>}
        <span className="text-[12px] text-mute">* must be there. An entry is never changed: it is corrected by another.</span>
      </p>
      {said !== "" && (
        <p role="alert" className="col-span-2 mt-1 text-[12.5px] text-brick">
          Not written. {said}.
        </p>
      )}
    </form>
  );
}
