// One entry: when, what, by whom; opened it tells where it came from and can be corrected or withdrawn.
import { PencilLine, Undo2 } from "lucide-react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { personName } from "../../design/person";
import { useReference } from "../../design/reference";
import type { LogEntry } from "../../design/types";
import { Button } from "../../ui/Button";
import { useUnits } from "../../ui/units";
import { clock, entryWords, kindOf } from "./fields";
import { useLog, useSizes, useWriteLog } from "./useLog";

interface LogRowProps {
  entry: LogEntry;
  /** It is in force: nothing corrects it. */
  counts: boolean;
  /** It was gone to. */
  lit: boolean;
  onCorrect: () => void;
}

export function LogRow({ entry, counts, lit, onCorrect }: LogRowProps) {
  const reference = useReference();
  const units = useUnits();
  const sizeOf = useSizes();
  const { designId } = useParams();
  const [open, setOpen] = useState(lit);
  const by = useLog().find((e) => e.corrects === entry.number)?.number;
  return (
    <li
      className={`border-b border-rule/60 py-1 text-[13px] ${open ? "bg-petrol/8" : ""}`}
      data-entry={entry.number}
      data-place={`/log/${entry.number}`}
    >
      <button
        type="button"
        aria-expanded={open}
        className="grid w-full grid-cols-[2.2rem_7.6rem_minmax(0,1fr)_6rem] gap-x-2 text-left"
        onClick={() => setOpen(!open)}
      >
        <span className="text-right text-mute tabular-nums">{entry.number}</span>
        <span className="text-mute tabular-nums">{entry.at}</span>
        <span>
          <b className={`font-semibold ${counts ? "" : "text-mute line-through"}`}>{kindOf(reference, entry.kind).title}</b>{" "}
          <span className={counts ? "" : "text-mute line-through"}>{entryWords(entry, reference, units, sizeOf)}</span>
          {entry.corrects != null && (
            <span className="ml-1 text-[12px] text-petrol">
              {entry.kind === "withdrawn" ? `entry ${entry.corrects} withdrawn` : `in place of ${entry.corrects}`}
            </span>
          )}
          {by !== undefined && <span className="ml-1 text-[12px] text-gold-text">corrected by {by}</span>}
          {entry.text !== "" && <span className="block text-[12px] text-mute">{entry.text}</span>}
        </span>
        <span className="truncate text-right text-[12px] text-mute">{entry.author}</span>
      </button>
      {open && (
        <div className="mt-1 ml-[2.7rem] flex flex-wrap items-center gap-1.5 text-[12px] text-mute">
          <span>Written {entry.logged_at?.slice(0, 16).replace("T", " ")} UTC</span>
          {entry.step && (
            <Link className="text-petrol underline" to={`/designs/${designId}/runsheet?tab=floor&line=${encodeURIComponent(entry.step)}`}>
              signs a step of the run sheet
            </Link>
          )}
          {counts && entry.kind !== "withdrawn" && (
            <>
              <Button onClick={onCorrect}>
                <PencilLine size={12} aria-hidden /> Correct
              </Button>
              <Withdraw entry={entry} />
            </>
          )}
        </div>
      )}
    </li>
  );
}

function Withdraw({ entry }: { entry: LogEntry }) {
  const write = useWriteLog();
  const [why, setWhy] = useState<string | null>(null);
  const [said, setSaid] = useState("");
  if (why === null)
    return (
      <Button onClick={() => setWhy("")}>
        <Undo2 size={12} aria-hidden /> Withdraw
      </Button>
    );
  return (
    <form
      className="flex items-center gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        write([{ at: clock(), kind: "withdrawn", corrects: entry.number, text: why, author: personName() } as never]).catch(
          (error: unknown) => {
            setSaid(error instanceof Error ? error.message : "The server is not reached.");
          },
        );
      }}
    >
      <input
        className="field w-52"
        aria-label="Why it is withdrawn"
        placeholder="Why"
        value={why}
        onChange={(event) => setWhy(event.target.value)}
      />
      <Button kind="act" type="submit">
        Withdraw entry {entry.number}
      </Button>
      {said !== "" && <span className="text-brick">{said}</span>}
    </form>
  );
}
