// One step at a time, large, for the rig floor: read, signed, next. A step that may not be done is not gone past.
import { ArrowLeft, ArrowRight, Hand, OctagonX, TriangleAlert } from "lucide-react";
import { useEffect } from "react";
import { useLine } from "../../design/address";
import type { LineRow, SheetDetail } from "../../design/types";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { Sign, useDone } from "./Sign";
import { useSheet } from "./useSheet";

export function Floor() {
  const detail = useSheet();
  if (detail === undefined) return <Empty>The sheet is being made.</Empty>;
  return <Steps detail={detail} />;
}

/** Steps that are done, in their order: what is crossed out is not. */
function Steps({ detail }: { detail: SheetDetail }) {
  const lines = detail.lines.filter((l) => !l.crossed);
  const finished = useDone(lines);
  const next = lines.find((l) => !finished.has(l.key))?.key ?? lines[lines.length - 1]?.key ?? "";
  const [picked, take] = useLine();
  const place = (key: string | null) => lines.findIndex((l) => l.key === key);
  const at = Math.max(0, place(picked) < 0 ? place(next) : place(picked));
  const line = lines[at];
  const stop = lines.findIndex((l) => l.held.length > 0 || l.broken.length > 0);
  const stopped = stop >= 0 && at >= stop;
  const go = (by: number) => {
    const to = lines[at + by];
    if (to !== undefined && (by < 0 || !stopped)) take(to.key);
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest("input, select, textarea, [role=tab]") !== null;
      if (typing || event.altKey || event.ctrlKey || event.metaKey) return;
      if (event.key === "ArrowRight" || event.key === "PageDown") go(1);
      else if (event.key === "ArrowLeft" || event.key === "PageUp") go(-1);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => {
      window.removeEventListener("keydown", onKey);
    };
  });
  if (line === undefined) return <Empty>No step.</Empty>;
  const done = finished.size;
  return (
    <div className="flex h-full flex-col">
      <p className="mb-1 flex shrink-0 items-center gap-2 text-[12.5px] text-mute" role="status">
        Step {line.number} of {detail.lines.length}, {done} done
        <progress className="h-1.5 w-40 accent-petrol" max={lines.length} value={done} aria-label="Steps done" />
      </p>
      <Step key={line.key} line={line} following={lines[at + 1]} stopped={stopped && at > stop ? lines[stop] : undefined} />
      <div className="mt-auto flex shrink-0 flex-wrap items-center gap-2 border-t border-rule pt-2">
        <Button className="px-4 py-2 text-[15px]" disabled={at === 0} onClick={() => go(-1)}>
          <ArrowLeft size={16} aria-hidden /> Back
        </Button>
        <Sign key={line.key} line={line} stopped={stopped} onDone={() => go(1)} />
        <Button className="ml-auto px-4 py-2 text-[15px]" disabled={stopped || at === lines.length - 1} onClick={() => go(1)}>
          Next <ArrowRight size={16} aria-hidden />
        </Button>
      </div>
    </div>
  );
}

interface StepProps {
  line: LineRow;
  following: LineRow | undefined;
  /** The step before it at which the sheet stops. */
  stopped: LineRow | undefined;
}

function Step({ line, following, stopped }: StepProps) {
  const units = useUnits();
  return (
    <div className="min-h-0 flex-1 overflow-auto py-2" aria-live="polite">
      <p className="text-[14px] text-mute">
        {line.section.length > 0 ? `${units.words(line.section)}, ` : ""}
        {line.kind}
        {line.hours ? `, about ${units.text(line.hours, "hours")}` : ""}
      </p>
      <p className="text-[27px] leading-snug font-semibold text-balance">{units.words(line.text)}</p>
      {line.caution.length > 0 && (
        <p className="mt-3 flex items-start gap-2 text-[19px] leading-snug text-gold-text">
          <TriangleAlert size={20} aria-label="Caution:" className="mt-0.5 shrink-0" />
          {units.words(line.caution)}
        </p>
      )}
      {stopped !== undefined && (
        <p className="mt-3 flex items-start gap-2 text-[19px] leading-snug font-semibold text-brick" role="alert">
          <OctagonX size={20} aria-hidden className="mt-0.5 shrink-0" />
          Not yet: the sheet stops at step {stopped.number}, {units.words(stopped.text)}.
        </p>
      )}
      {line.held.length > 0 && (
        <p className="mt-3 flex items-start gap-2 text-[19px] leading-snug font-semibold text-brick" role="alert">
          <OctagonX size={20} aria-hidden className="mt-0.5 shrink-0" />
          Do not go on: {units.words(line.held)}.
        </p>
      )}
      {line.broken.map((rule) => (
        <p key={rule} className="mt-3 flex items-start gap-2 text-[19px] leading-snug font-semibold text-brick" role="alert">
          <OctagonX size={20} aria-hidden className="mt-0.5 shrink-0" />
          {rule}
        </p>
      ))}
      {line.hold ? (
        <p className="mt-3 flex items-center gap-2 text-[17px] text-petrol">
          <Hand size={18} aria-hidden /> Hold-point: signed by {line.signs} before the next step
        </p>
      ) : (
        line.signs !== "" && <p className="mt-3 text-[15px] text-mute">Signed by: {line.signs}</p>
      )}
      {line.note !== "" && <p className="mt-3 text-[17px] text-petrol">{line.note}</p>}
      {line.why !== "" && <p className="mt-3 text-[15px] text-mute">Why here: {line.why}</p>}
      {following !== undefined && <p className="mt-6 text-[15px] text-mute">Then: {units.words(following.text)}</p>}
    </div>
  );
}
