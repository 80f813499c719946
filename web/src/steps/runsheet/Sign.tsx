// A step signed: with what the log asks for at it. What is signed is an entry of the log, and is taken back by another.
import { Check, NotebookPen } from "lucide-react";
import { useState } from "react";
import { saidOf } from "../../design/api";
import { useBench } from "../../design/context";
import { signedSteps } from "../../design/drilled";
import { personName } from "../../design/person";
import type { LineRow, LogEntry, NewEntry } from "../../design/types";
import { Button } from "../../ui/Button";
import { Modal } from "../../ui/Modal";
import { EntryForm } from "../logbook/EntryForm";
import { clock } from "../logbook/fields";
import { useLog, useWriteLog } from "../logbook/useLog";
import { editStep } from "./edits";

interface SignProps {
  line: LineRow;
  stopped: boolean;
  onDone: () => void;
}

/** Keys of the steps that are done: ticked in the design by an older version, or signed in the log. */
export function useDone(lines: readonly LineRow[]): Set<string> {
  const signed = signedSteps(useLog());
  return new Set(lines.filter((l) => l.done || signed.has(l.key)).map((l) => l.key));
}

export function Sign({ line, stopped, onDone }: SignProps) {
  const entry = signedSteps(useLog()).get(line.key);
  const [asking, setAsking] = useState(false);
  const [name, setName] = useState(personName());
  const { write, said } = useSaid();
  if (entry !== undefined || line.done) return <Done line={line} entry={entry} />;
  const unsigned = line.hold && name.trim() === "";
  const sign = () => {
    if (line.asks !== "signed") setAsking(true);
    else write([{ at: clock(), kind: "signed", step: line.key, author: name.trim() } as NewEntry], onDone);
  };
  return (
    <>
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          sign();
        }}
      >
        <input
          aria-label={`Signed by${line.signs === "" ? "" : `: ${line.signs}`}`}
          placeholder={line.hold ? "Name: a hold-point is signed" : "Name"}
          className="field w-56 py-1.5 text-[15px]"
          maxLength={200}
          value={name}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
        <Button kind="act" type="submit" className="px-4 py-2 text-[15px]" disabled={stopped || unsigned}>
          {line.asks === "signed" ? <Check size={16} aria-hidden /> : <NotebookPen size={16} aria-hidden />}
          {line.asks === "signed" ? "Done" : "Done: log it"}
        </Button>
      </form>
      {said !== "" && (
        <span role="alert" className="text-[13px] text-brick">
          Not signed. {said}
        </span>
      )}
      <Modal open={asking} onOpenChange={setAsking} title={`Step ${line.number}: what it came to`} width="w-[40rem]">
        <div className="min-h-0 overflow-auto">
          <EntryForm
            kind={line.asks}
            initial={{ step: line.key, string: line.about, author: name.trim(), ...(line.asks === "depth" ? { md_ft: line.md_ft } : {}) }}
            action="Sign and log"
            onDone={() => {
              setAsking(false);
              onDone();
            }}
            onCancel={() => setAsking(false)}
          />
          <SignAlone line={line} name={name.trim()} write={write} onDone={onDone} />
        </div>
      </Modal>
    </>
  );
}

interface SignAloneProps {
  line: LineRow;
  name: string;
  write: (entries: readonly NewEntry[], onDone: () => void) => void;
  onDone: () => void;
}

/** Signed without its numbers: they are not known then, and can be logged later. */
function SignAlone({ line, name, write, onDone }: SignAloneProps) {
  return (
    <p className="mt-2 border-t border-rule pt-2 text-[12px] text-mute">
      <Button onClick={() => write([{ at: clock(), kind: "signed", step: line.key, author: name } as NewEntry], onDone)}>
        Sign without numbers
      </Button>{" "}
      The plan’s stay in force until they are logged.
    </p>
  );
}

function useSaid() {
  const log = useWriteLog();
  const [said, setSaid] = useState("");
  const write = (entries: readonly NewEntry[], onDone: () => void) => {
    setSaid("");
    log(entries).then(onDone, (error: unknown) => {
      setSaid(saidOf(error, () => "Step"));
    });
  };
  return { write, said };
}

function Done({ line, entry }: { line: LineRow; entry: LogEntry | undefined }) {
  const { session } = useBench();
  const { write, said } = useSaid();
  const by = entry?.author ?? line.done_by;
  const undo = () => {
    if (entry === undefined) session.edit(editStep(session.snapshot().document, line.key, { done: false, done_by: "" }));
    else
      write(
        [{ at: clock(), kind: "withdrawn", corrects: entry.number, author: personName(), text: "Not done after all" } as NewEntry],
        () => undefined,
      );
  };
  return (
    <span className="flex items-center gap-2 text-[15px] text-moss">
      <Check size={16} aria-hidden /> Done{by === "" ? "" : `, ${by}`}
      {entry !== undefined && <span className="text-[12.5px] text-mute">log entry {entry.number}</span>}
      <Button onClick={undo}>Not done after all</Button>
      {said !== "" && <span className="text-[13px] text-brick">{said}</span>}
    </span>
  );
}
