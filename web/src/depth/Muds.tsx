// The mud of each hole in the window, stepping at the shoes; its label is dragged sideways, nudged or typed over.
import { editString, useBench, useDrawnStrings, useSnapshot } from "../design/context";
import type { StringResult } from "../design/types";
import { useUnits } from "../ui/units";
import type { DepthScale } from "./scale";
import { line } from "./Track";
import { useGrip } from "./useGrip";

interface MudsProps {
  at: (ppg: number) => number;
  ppgAt: (px: number) => number;
  scale: DepthScale;
}

export function Muds({ at, ppgAt, scale }: MudsProps) {
  const { selected } = useBench();
  const strings = useDrawnStrings();
  const steps = useSnapshot("evaluation")?.mud.strings.map((row) => row.steps) ?? [];
  return strings.map((s, i) => {
    const next = strings[i + 1]?.mud_ppg ?? null;
    if (s.mud_ppg === null) return null;
    const y = scale.y(s.shoe_md_ft);
    return (
      <g key={i}>
        <path
          d={line(course(s, steps[i] ?? []).map(([md, ppg]) => [at(ppg), scale.y(md)] as const))}
          fill="none"
          stroke="var(--petrol)"
          strokeWidth={i === selected ? 3.4 : 2.2}
        />
        {next !== null && <line x1={at(s.mud_ppg)} x2={at(next)} y1={y} y2={y} stroke="var(--petrol)" strokeWidth={2.2} />}
        <MudLabel index={i} string={s} mudPpg={s.mud_ppg} at={at} ppgAt={ppgAt} scale={scale} />
      </g>
    );
  });
}

/** Depth and weight along a section: one line, or a stair where it is drilled in steps. */
function course(s: StringResult, steps: readonly { from_md_ft: number; to_md_ft: number; mud_ppg: number }[]): [number, number][] {
  if (steps.length === 0)
    return [
      [s.previous_shoe_md_ft, s.mud_ppg!],
      [s.shoe_md_ft, s.mud_ppg!],
    ];
  return steps.flatMap((step): [number, number][] => [
    [step.from_md_ft, step.mud_ppg],
    [step.to_md_ft, step.mud_ppg],
  ]);
}

function MudLabel({ index, string, mudPpg, at, ppgAt, scale }: MudsProps & { index: number; string: StringResult; mudPpg: number }) {
  const { session, select, typeOver } = useBench();
  const units = useUnits();
  const hole = string.bit_in === null ? string.role : `${units.text(string.bit_in, "size")} hole`;
  const held = () => session.snapshot().document.strings[index]?.mud_ppg ?? mudPpg;
  const put = (ppg: number) => {
    const to = Math.min(30, Math.max(0.5, ppg));
    if (to !== session.snapshot().document.strings[index]?.mud_ppg) editString(session, index, "mud_ppg", to);
  };
  const grip = useGrip<number>({
    held,
    take: () => {
      select(index);
    },
    drag: (from, start, to, free) => {
      put(units.snapEmw(ppgAt(at(from) + to.x - start.x), free));
    },
    nudge: (from, right) => {
      if (right !== 0) put(units.snapEmw(from + right * units.emwStepPpg()));
    },
    type: (box, first) => {
      typeOver({ box, label: `Mud, ${hole}`, quantity: "emw", value: held(), first, commit: put });
    },
  });
  const y = (scale.edgeY(string.previous_shoe_md_ft) + scale.edgeY(string.shoe_md_ft)) / 2;
  const text = units.number(mudPpg, "emw");
  return (
    <g
      tabIndex={0}
      role="slider"
      aria-label={`Mud, ${hole}`}
      aria-valuemin={0.5}
      aria-valuemax={30}
      aria-valuenow={mudPpg}
      aria-valuetext={units.text(mudPpg, "emw")}
      data-grip={`mud-${index}`}
      className="cursor-ew-resize touch-none"
      {...grip}
    >
      <title>Drag sideways, arrow keys, or double click to type</title>
      <rect x={at(mudPpg) + 3} y={y - 16} width={text.length * 6.6 + 4} height={24} fill="transparent" />
      <text x={at(mudPpg) + 5} y={y} fontSize={12} fontWeight={600} className="halo" style={{ fill: "var(--petrol)" }}>
        {text}
      </text>
    </g>
  );
}
