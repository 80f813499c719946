// One step: its number, what is done, its caution, who signs, its time; opened it tells why it stands here and lets it be edited.
import { Hand, OctagonX, PencilLine, Split, TriangleAlert } from "lucide-react";
import type { KeyboardEvent } from "react";
import type { LineChange, LineRow } from "../../design/types";
import { useUnits } from "../../ui/units";
import { OwnFields } from "./OwnFields";
import { StepFields } from "./StepFields";
import { isMine } from "./filter";

interface LineProps {
  line: LineRow;
  /** The section that begins with it. */
  heading: string | null;
  change: LineChange | undefined;
  open: boolean;
  /** Where the focus comes in. */
  first: boolean;
  onOpen: () => void;
  onKey: (event: KeyboardEvent) => void;
  onMove: (by: 1 | -1) => void;
  onCross: () => void;
}

const CHANGED = { changed: "changed since issue", new: "new since issue", moved: "moved since issue", gone: "" } as const;

export function Line({ line, heading, change, open, first, onOpen, onKey, onMove, onCross }: LineProps) {
  const units = useUnits();
  const text = units.words(line.text);
  const stopped = line.held.length > 0;
  return (
    <>
      {heading !== null && <h3 className="border-b border-rule bg-sheet px-2 py-0.5 text-[12px] font-semibold">{heading}</h3>}
      <div
        className={`border-b border-rule/60 border-l-[3px] py-1 pl-1.5 text-[13px] ${change ? "border-l-gold" : "border-l-transparent"} ${open ? "bg-petrol/8" : ""}`}
        data-changed={change?.what}
        data-crossed={line.crossed}
      >
        <button
          type="button"
          tabIndex={first ? 0 : -1}
          aria-expanded={open}
          className="grid w-full grid-cols-[2.1rem_minmax(0,1fr)_3.4rem_5.4rem] gap-x-1.5 text-left"
          onClick={onOpen}
          onKeyDown={onKey}
        >
          <span className="text-right text-mute tabular-nums">{line.number}</span>
          <span>
            <Marks line={line} />
            <span className={line.crossed ? "text-mute line-through" : ""}>{text}</span>
            {line.crossed && <span className="sr-only"> crossed out</span>}
            {change !== undefined && <span className="ml-1.5 text-[11.5px] text-gold-text">{CHANGED[change.what]}</span>}
            {line.caution.length > 0 && (
              <span className="block text-[12px] text-gold-text">
                <TriangleAlert size={11} aria-label="Caution:" className="mr-1 inline align-[-1px]" />
                {units.words(line.caution)}
              </span>
            )}
            {stopped && (
              <span className="block text-[12px] font-semibold text-brick">
                <OctagonX size={11} aria-label="Held:" className="mr-1 inline align-[-1px]" />
                Do not go on: {units.words(line.held)}.
              </span>
            )}
            {line.broken.map((rule) => (
              <span key={rule} className="block text-[12px] font-semibold text-brick">
                <OctagonX size={11} aria-label="Breaks an order rule:" className="mr-1 inline align-[-1px]" />
                {rule}
              </span>
            ))}
            {line.note !== "" && <span className="block text-[12px] text-petrol">{line.note}</span>}
          </span>
          <span className="text-right text-[12px] text-mute tabular-nums">{hoursOf(line, units.number(line.hours, "hours"))}</span>
          <span className="text-right text-[12px] text-mute tabular-nums">{dayOf(line, units.number(line.begins, "days"))}</span>
        </button>
        {open && (
          <div className="mt-1 mb-1 ml-[2.5rem] text-[12.5px]">
            {change !== undefined && change.before.length > 0 && change.what === "changed" && (
              <p className="text-[12px] text-gold-text">As issued: {units.words(change.before)}</p>
            )}
            <p className="text-mute">
              {line.why !== "" && <>Why here: {line.why} </>}
              <span className="whitespace-nowrap">{line.kind}</span>
              {line.signs !== "" && <>, signed by {line.signs}</>}
              {line.hold && <b>, hold-point</b>}
              {line.beside && <>, beside the rig’s own work{slackOf(line, units.number(line.slack_hours, "hours"))}</>}.
            </p>
            {line.own !== "" && <OwnFields id={line.own} />}
            <StepFields line={line} text={text} onMove={onMove} onCross={onCross} />
          </div>
        )}
      </div>
    </>
  );
}

function Marks({ line }: { line: LineRow }) {
  return (
    <>
      {line.hold && <Hand size={12} aria-label="Hold-point:" className="mr-1 inline align-[-1px] text-petrol" />}
      {line.beside && <Split size={12} aria-label="Beside the rig's own work:" className="mr-1 inline align-[-1px] text-mute" />}
      {isMine(line) && <PencilLine size={12} aria-label="Edited by hand:" className="mr-1 inline align-[-1px] text-petrol" />}
    </>
  );
}

function hoursOf(line: LineRow, text: string): string {
  if (line.hours === null) return "unknown";
  return line.hours === 0 ? "" : `${text} h`;
}

function dayOf(line: LineRow, text: string): string {
  if (line.begins === null) return "";
  return line.date !== "" ? line.date : `day ${text}`;
}

function slackOf(line: LineRow, text: string): string {
  return line.slack_hours === null || line.slack_hours < 0.05 ? ", critical" : `, ${text} h to spare`;
}
