// The riser from the rotary to the sea floor, to scale down the page: every joint, the telescopic joint, the stack.
import { scaleLinear } from "d3-scale";
import { useEvaluated } from "../../design/context";
import type { RiserString, StandingJoints } from "../../design/types";
import { useUnits } from "../../ui/units";

const WIDTH = 210;
const HEIGHT = 560;
const TOP = 26;
const MIDDLE = 78;
const LABEL = MIDDLE + 30;
const HALF = { bare: 5, buoyant: 10, telescopic: 7, stack: 15, housing: 9 };

export function RiserPicture({ found }: { found: RiserString }) {
  const units = useUnits();
  const basis = useEvaluated((e) => e.basis);
  if (basis === undefined) return null;
  const y = scaleLinear([0, basis.ground_md_ft], [TOP, HEIGHT - 34]);
  const kinds = found.joints.filter((row) => row.count > 0);
  const spans = spansOf(found, kinds);
  const marks: [number, string][] = [
    [0, "rotary"],
    [basis.sea_level_md_ft, "sea level"],
    [found.foot_md_ft, "lower flex joint"],
    [basis.ground_md_ft, "mudline"],
  ];
  return (
    <svg width={WIDTH} height={HEIGHT} role="img" aria-label="Riser from the rotary to the sea floor" className="shrink-0">
      <rect
        x={0}
        y={y(basis.sea_level_md_ft)}
        width={WIDTH}
        height={y(basis.ground_md_ft) - y(basis.sea_level_md_ft)}
        fill="var(--water)"
      />
      <rect x={0} y={y(basis.ground_md_ft)} width={WIDTH} height={HEIGHT - y(basis.ground_md_ft)} fill="var(--hole)" />
      <Part half={3} from={y(0)} to={y(found.top_md_ft)} fill="var(--steel)" title="Upper flex joint and diverter" />
      <Part
        half={HALF.telescopic}
        from={y(basis.sea_level_md_ft * 0.5)}
        to={y(found.top_md_ft)}
        fill="var(--mute)"
        title="Telescopic joint"
      />
      {spans.map(({ row, from, to }, i) => (
        <g key={i}>
          <Part
            half={row.lift_lbf > 0 ? HALF.buoyant : HALF.bare}
            from={y(from)}
            to={y(to)}
            fill={row.lift_lbf > 0 ? "var(--gold)" : "var(--steel)"}
            title={`${row.count} × ${row.name}`}
          />
          {Array.from({ length: row.count - 1 }, (_, k) => (
            <line
              key={k}
              x1={MIDDLE - 11}
              x2={MIDDLE + 11}
              y1={y(from + (k + 1) * row.length_ft)}
              y2={y(from + (k + 1) * row.length_ft)}
              stroke="var(--sheet)"
              strokeWidth={0.6}
            />
          ))}
        </g>
      ))}
      <Part half={HALF.stack} from={y(found.foot_md_ft) - 2} to={y(found.housing_md_ft)} fill="var(--ink)" title="Stack" />
      <Part half={HALF.housing} from={y(found.housing_md_ft)} to={y(basis.ground_md_ft)} fill="var(--steel)" title="Wellhead" />
      {spread(marks.map(([md, words]) => [y(md), `${units.text(md, "depth")} ${words}`] as const)).map(([py, words]) => (
        <text key={words} x={4} y={py} fontSize={11} className="halo">
          {words}
        </text>
      ))}
      {spans
        .filter(({ from, to }) => y(to) - y(from) > 14)
        .map(({ row, from, to }, i) => (
          <text key={i} x={LABEL} y={(y(from) + y(to)) / 2 + 4} fontSize={11} className="halo">
            {row.count} × {units.text(row.length_ft, "depth")}
          </text>
        ))}
    </svg>
  );
}

/** From where to where each kind of joint stands. */
function spansOf(found: RiserString, kinds: readonly StandingJoints[]): { row: StandingJoints; from: number; to: number }[] {
  const lengths = kinds.map((row) => row.total_ft);
  return kinds.map((row, i) => {
    const from = found.top_md_ft + lengths.slice(0, i).reduce((sum, ft) => sum + ft, 0);
    return { row, from, to: Math.min(from + row.total_ft, found.foot_md_ft) };
  });
}

function Part({ half, from, to, fill, title }: { half: number; from: number; to: number; fill: string; title: string }) {
  return (
    <rect x={MIDDLE - half} y={from} width={2 * half} height={Math.max(1, to - from)} style={{ fill }}>
      <title>{title}</title>
    </rect>
  );
}

/** Labels a line of text apart, each under its mark. */
function spread(marks: readonly (readonly [number, string])[]): [number, string][] {
  let last = -Infinity;
  return marks.map(([py, words]) => {
    last = Math.max(py + 12, last + 13);
    return [last, words];
  });
}
