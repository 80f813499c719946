// Small parts of the running bench: which string is in hand, a decision with what holds without one, and a list of results.
import type { ReactNode } from "react";
import { adoption, useAt, useBench, useSnapshot } from "../../design/context";
import { useReference } from "../../design/reference";
import type { Quantity } from "../../design/types";
import { FieldLabel } from "../../ui/DocField";
import { Choice } from "../../ui/Field";
import { Headline } from "../../ui/Headline";
import { Empty } from "../../ui/Panel";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";

/** In place of a tally that is not there yet. */
export function Waiting() {
  const faults = useSnapshot("faults");
  return <Empty>{faults.length > 0 ? "The joints are worked once the entry named at the right is mended." : "Working the joints…"}</Empty>;
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

interface ResultProps {
  label: string;
  value: number | null | undefined;
  quantity: Quantity;
  working?: string;
  /** What it says beside the number, or in its place. */
  note?: ReactNode;
  bad?: boolean;
}

/** A number that follows, with its unit; it opens into its working where it has one. */
export function Outcome({ label, value, quantity, working, note, bad = false }: ResultProps) {
  const units = useUnits();
  const { selected } = useBench();
  const text = <span className={bad ? "font-semibold text-brick" : ""}>{units.text(value, quantity)}</span>;
  return (
    <div className="grid grid-cols-[1fr_auto] items-baseline gap-x-2 border-b border-rule/60 py-0.5 text-[12.5px]">
      <span className="leading-tight">
        <Term>{label}</Term>
      </span>
      <span className="text-right">
        {working !== undefined && value !== null && value !== undefined ? (
          <Headline working={`running/${selected}/${working}`} title={label.toLowerCase()}>
            {text}
          </Headline>
        ) : (
          text
        )}
        {note !== undefined && <span className="ml-1 text-mute">{note}</span>}
      </span>
    </div>
  );
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
