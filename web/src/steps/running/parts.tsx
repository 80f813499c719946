// Small parts of the running bench: which string is in hand, a decision with what holds without one, and a list of results.
import type { ReactNode } from "react";
import { adoption, useAt, useBench, useWorkable } from "../../design/context";
import { useReference } from "../../design/reference";
import { FieldLabel } from "../../ui/DocField";
import { Choice } from "../../ui/Field";
import { Outcome as SharedOutcome, type OutcomeProps } from "../../ui/Outcome";
import { Empty } from "../../ui/Panel";

/** In place of a tally that is not there yet; while an entry has a fault, the tally worked last stands instead. */
export function Waiting() {
  const document = useWorkable();
  return <Empty>{document === null ? "The joints are worked once the entry named at the right is mended." : "Working the joints…"}</Empty>;
}

interface DecisionProps {
  path: string;
  /** What holds while nothing is decided. */
  proposed: string | null | undefined;
}

/** A choice that may be left open: what then holds stands in it, in italics. */
export function Decision({ path, proposed }: DecisionProps) {
  const { session } = useBench();
  const field = useReference().at(path);
  const held = useAt(path) as string | null | undefined;
  const commit = (value: string) => {
    const { document, evaluation } = session.snapshot();
    session.edit([...adoption(document, evaluation), { path, value: value === "" ? null : value }]);
  };
  return (
    <Choice
      label={field.title}
      place={path}
      value={held ?? ""}
      decided={held !== null && held !== undefined}
      options={[{ value: "", text: proposed ?? "by policy" }, ...field.options.map((o) => ({ value: o, text: o }))]}
      onCommit={commit}
    />
  );
}

export function Line({ path, children }: { path: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[1fr_minmax(0,11rem)] items-center border-b border-rule/60 py-px text-[12.5px]">
      <span className="leading-tight">
        <FieldLabel path={path} />
      </span>
      {children}
    </div>
  );
}

/** A result of the string in hand; `working` is its name within the step. */
export function Outcome({ working, ...result }: OutcomeProps) {
  const { selected } = useBench();
  return <SharedOutcome {...result} working={working === undefined ? undefined : `running/${selected}/${working}`} />;
}

interface DrawnLine {
  text: string;
  colour: string;
  dashed?: boolean;
  wide?: boolean;
}

/** What the lines of a track are. */
export function Legend({ lines }: { lines: readonly DrawnLine[] }) {
  return (
    <p className="mb-2 flex flex-wrap gap-x-3 text-[12px] text-mute">
      {lines.map(({ text, colour, dashed, wide }) => (
        <span key={text} className="inline-flex items-center gap-1">
          <svg width={22} height={8} aria-hidden>
            <line x1={0} x2={22} y1={4} y2={4} stroke={colour} strokeWidth={wide ? 2 : 1.2} strokeDasharray={dashed ? "5 3" : undefined} />
          </svg>
          {text}
        </span>
      ))}
    </p>
  );
}
