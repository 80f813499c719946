// The completion in the well: tubing, packer, perforations, and the completion fluid over the packer.
import { useEvaluated } from "../design/context";
import type { Basis, StringResult } from "../design/types";
import type { DepthScale } from "../depth/scale";
import { Fill } from "./fills";
import { CENTRE, halfPxPerInch, pathPlan } from "./geometry";

interface Props {
  scale: DepthScale;
  basis: Basis;
  strings: readonly StringResult[];
}

const SHOTS_PX = 7;
const TUBING_IN = 3.5;

export function TubingOnSection({ scale, basis, strings }: Props) {
  const row = useEvaluated((e) => e.completion.completion);
  if (row == null) return null;
  const perIn = halfPxPerInch(strings, scale.axis.kind !== "md");
  const plan = scale.axis.kind === "md" ? null : pathPlan(basis, scale);
  const casing = (strings[strings.length - 1]?.od_in ?? 7) * perIn;
  const half = (row.tubing?.od_in ?? TUBING_IN) * perIn;
  const top = row.tubing?.hanger_md_ft ?? basis.ground_md_ft;
  const packer = row.packer_md_ft;
  const x = (md: number) => plan?.x(md) ?? CENTRE;
  const shared = { scale, basis };
  return (
    <>
      {packer !== null && (
        <>
          <Fill {...shared} from={top} to={packer} inner={0} outer={casing - 1.5} fill="var(--fluid-displacement)" opacity={0.7} />
          <Fill {...shared} from={top} to={packer + 30} inner={0} outer={half} fill="var(--sheet)" />
          <Fill {...shared} from={top} to={packer + 30} inner={Math.max(half - 1.6, 0.4)} outer={half} fill="var(--petrol)" />
          <g transform={`translate(${x(packer)}, ${scale.y(packer)})`} data-testid="packer-on-section">
            {[-1, 1].map((side) => (
              <rect
                key={side}
                x={side < 0 ? -casing + 1 : half}
                y={-4}
                width={Math.max(casing - half - 1, 2)}
                height={8}
                fill="var(--ink)"
              />
            ))}
          </g>
        </>
      )}
      {row.perforated.map(([from, to]) => (
        <g key={from}>
          {shots(scale.y(from), scale.y(to)).map((y) =>
            [-1, 1].map((side) => (
              <path
                key={`${y}${side}`}
                d={`M${x(from) + side * casing},${y - 2} l${side * SHOTS_PX},2 l${-side * SHOTS_PX},2 z`}
                fill="var(--rust)"
              />
            )),
          )}
        </g>
      ))}
    </>
  );
}

/** Heights of the shots drawn, no closer than they can be seen. */
function shots(top: number, base: number): number[] {
  const count = Math.max(1, Math.floor((base - top) / 6));
  return Array.from({ length: count }, (_, i) => top + ((i + 0.5) * Math.max(base - top, 2)) / count);
}
