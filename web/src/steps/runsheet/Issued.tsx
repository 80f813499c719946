// Issues of the sheet: the revision that the rig has in hand, what changed since, and the next issue.
import { Send } from "lucide-react";
import { useState } from "react";
import { useSnapshot } from "../../design/context";
import type { LineChange } from "../../design/types";
import { Button } from "../../ui/Button";
import { Modal } from "../../ui/Modal";
import { useUnits } from "../../ui/units";
import { useIssue, useIssues } from "./useSheet";

export function Issued({ changes }: { changes: ReadonlyMap<string, LineChange> | undefined }) {
  const issues = useIssues();
  const [open, setOpen] = useState(false);
  const last = issues?.[0];
  const count = changes?.size ?? 0;
  return (
    <>
      <Button
        onClick={() => {
          setOpen(true);
        }}
      >
        <Send size={13} aria-hidden /> Issue
      </Button>
      <span className="text-[12px] text-mute" role="status">
        {last === undefined
          ? "Not issued yet."
          : `Issue ${last.issue} of ${dated(last.issued_at)}: ${count === 0 ? "nothing changed since." : `${count} ${count === 1 ? "step" : "steps"} changed since.`}`}
      </span>
      <Modal open={open} onOpenChange={setOpen} title="Issues of the run sheet" width="w-[44rem]">
        <Dialog
          changes={changes}
          done={() => {
            setOpen(false);
          }}
        />
      </Modal>
    </>
  );
}

export function dated(moment: string): string {
  return moment.slice(0, 16).replace("T", " ");
}

const WORDS = { changed: "changed", new: "new", gone: "gone", moved: "moved" } as const;

function Dialog({ changes, done }: { changes: ReadonlyMap<string, LineChange> | undefined; done: () => void }) {
  const units = useUnits();
  const issues = useIssues() ?? [];
  const issue = useIssue();
  const saved = useSnapshot("save") === "saved";
  const [note, setNote] = useState("");
  const [said, setSaid] = useState("");
  const rows = [...(changes?.values() ?? [])];
  const send = () => {
    issue(note).then(done, (error: unknown) => {
      setSaid(error instanceof Error ? error.message : "The server is not reached.");
    });
  };
  return (
    <div className="flex min-h-0 flex-col gap-2 text-[12.5px]">
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          send();
        }}
      >
        <label htmlFor="issue-note">What it is issued for</label>
        <input
          id="issue-note"
          className="field flex-1"
          maxLength={200}
          value={note}
          onChange={(event) => {
            setNote(event.target.value);
          }}
        />
        <Button kind="act" type="submit" disabled={!saved}>
          Issue the sheet as it is saved
        </Button>
      </form>
      {!saved && <p className="text-mute">Waits until the last edit is saved.</p>}
      {said !== "" && (
        <p role="alert" className="text-brick">
          {said}
        </p>
      )}
      <div className="min-h-0 overflow-auto" tabIndex={0} role="region" aria-label="Changed since the last issue">
        {issues.length > 0 && <h3 className="font-semibold">Changed since issue {issues[0]!.issue}</h3>}
        {issues.length > 0 && rows.length === 0 && <p className="text-mute">Nothing.</p>}
        <ul>
          {rows.map((row) => (
            <li key={row.key} className="border-b border-rule/60 py-1">
              <b>
                {row.number === null ? "" : `Step ${row.number} `}
                {WORDS[row.what]}
              </b>
              {row.what !== "new" && <span className="block text-mute">{units.words(row.before)}</span>}
              {row.what !== "gone" && row.what !== "moved" && <span className="block">{units.words(row.after)}</span>}
            </li>
          ))}
        </ul>
        {issues.length > 0 && <h3 className="mt-2 font-semibold">Issues</h3>}
        <ul>
          {issues.map((i) => (
            <li key={i.issue}>
              Issue {i.issue}, {dated(i.issued_at)}, revision {i.number}
              {i.author === "" ? "" : `, ${i.author}`}
              {i.note === "" ? "" : `: ${i.note}`}
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
