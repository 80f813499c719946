// The nest to scale: seen from above, and from the side with every section drawn equally long.
import { scaleLinear } from "d3-scale";
import { useSnapshot } from "../../design/context";
import { SavePicture } from "../../ui/SavePicture";
import { useUnits } from "../../ui/units";
import type { Ring } from "./nest";
import { ringsOf, widest } from "./nest";

const PLAN_PX = 232;
const SIDE_WIDTH_PX = 340;
const SIDE_HEIGHT_PX = 248;

export function NestPictures() {
  const evaluation = useSnapshot("evaluation")!;
  const tubing = useSnapshot("document").policy.sizes.tubing_od_in ?? null;
  const units = useUnits();
  const rings = ringsOf(evaluation, (v) => units.text(v, "size"));
  if (rings.length === 0) return null;
  return (
    <div className="flex flex-wrap items-start gap-4">
      <Plan rings={rings} tubing={tubing} />
      <Side rings={rings} tubing={tubing} />
    </div>
  );
}

function Plan({ rings, tubing }: { rings: readonly Ring[]; tubing: number | null }) {
  const scale = (PLAN_PX - 8) / widest(rings, tubing) / 2;
  const middle = PLAN_PX / 2;
  return (
    <figure data-picture style={{ width: PLAN_PX }}>
      <svg width={PLAN_PX} height={PLAN_PX} role="img" aria-label={`The nest from above, to scale: ${rings.map((r) => r.name).join(", ")}`}>
        {rings.map((ring, i) => (
          <g key={i} fill="none">
            {ring.holeIn !== null && <circle cx={middle} cy={middle} r={ring.holeIn * scale} stroke="var(--mute)" strokeDasharray="3 3" />}
            <circle cx={middle} cy={middle} r={ring.couplingIn * scale} stroke="var(--mute)" strokeWidth={0.8} />
            <circle
              cx={middle}
              cy={middle}
              r={((ring.odIn + ring.idIn) / 2) * scale}
              stroke="var(--ink)"
              strokeWidth={Math.max(1.2, (ring.odIn - ring.idIn) * scale)}
            />
          </g>
        ))}
        {tubing !== null && <circle cx={middle} cy={middle} r={tubing * scale} fill="none" stroke="var(--petrol)" strokeWidth={1.6} />}
        <ScaleBar x={2} y={PLAN_PX - 3} pxPerIn={2 * scale} />
      </svg>
      <figcaption className="text-[11.5px] text-mute">
        From above, to scale. Dashed: hole; thin: coupling. <SavePicture title="The nest from above" />
      </figcaption>
    </figure>
  );
}

const BAR_PX = 56;

/** How long a round length is in a drawing. */
function ScaleBar({ x, y, pxPerIn }: { x: number; y: number; pxPerIn: number }) {
  const units = useUnits();
  const pxPerShown = pxPerIn / units.factor("diameter");
  const shown =
    scaleLinear([0, BAR_PX / pxPerShown], [0, 1])
      .ticks(3)
      .at(-1) ?? 0;
  return (
    <g>
      <path d={`M${x},${y - 4}v4h${shown * pxPerShown}v-4`} fill="none" stroke="var(--ink)" />
      <text x={x + 3} y={y - 4} fontSize={10} style={{ fill: "var(--mute)" }}>
        {shown} {units.unit("diameter")}
      </text>
    </g>
  );
}

function Side({ rings, tubing }: { rings: readonly Ring[]; tubing: number | null }) {
  const units = useUnits();
  const scale = (SIDE_WIDTH_PX - 96) / widest(rings, tubing);
  const step = (SIDE_HEIGHT_PX - 42) / rings.length;
  const middle = (SIDE_WIDTH_PX - 96) / 2;
  const half = (diameter: number) => (diameter * scale) / 2;
  return (
    <figure data-picture style={{ width: SIDE_WIDTH_PX }}>
      <svg
        width={SIDE_WIDTH_PX}
        height={SIDE_HEIGHT_PX}
        role="img"
        aria-label={`The nest from the side, widths to scale: ${rings.map((r) => r.name).join(", ")}`}
      >
        {rings.map((ring, i) => {
          const [top, bottom] = [10 + i * step, 10 + (i + 1) * step];
          const wall = Math.max(1.2, half(ring.odIn) - half(ring.idIn));
          return (
            <g key={i}>
              {ring.holeIn !== null && (
                <path
                  d={`M${middle - half(ring.holeIn)},${top}V${bottom + 4}H${middle + half(ring.holeIn)}V${top}`}
                  fill="none"
                  stroke="var(--mute)"
                  strokeDasharray="3 3"
                />
              )}
              {[-1, 1].map((side) => (
                <g key={side}>
                  <rect
                    x={side < 0 ? middle - half(ring.odIn) : middle + half(ring.odIn) - wall}
                    y={10}
                    width={wall}
                    height={bottom - 10}
                    fill="var(--ink)"
                  />
                  <rect
                    x={side < 0 ? middle - half(ring.couplingIn) : middle + half(ring.odIn)}
                    y={bottom - 12}
                    width={half(ring.couplingIn) - half(ring.odIn)}
                    height={8}
                    fill="var(--mute)"
                  />
                </g>
              ))}
              <text x={SIDE_WIDTH_PX - 92} y={bottom - 8} fontSize={11} fontWeight={600}>
                {ring.name}
              </text>
              <text x={SIDE_WIDTH_PX - 92} y={bottom + 5} fontSize={10.5} style={{ fill: "var(--mute)" }}>
                {ring.holeIn === null ? "no hole" : `in ${units.text(ring.holeIn, "size")}`}
              </text>
            </g>
          );
        })}
        {tubing !== null && (
          <g fill="var(--petrol)">
            <rect x={middle - half(tubing)} y={10} width={1.4} height={SIDE_HEIGHT_PX - 56} />
            <rect x={middle + half(tubing) - 1.4} y={10} width={1.4} height={SIDE_HEIGHT_PX - 56} />
          </g>
        )}
        <ScaleBar x={SIDE_WIDTH_PX - 92} y={SIDE_HEIGHT_PX - 3} pxPerIn={scale} />
      </svg>
      <figcaption className="text-[11.5px] text-mute">
        From the side: widths to scale, lengths not. <SavePicture title="The nest from the side" />
      </figcaption>
    </figure>
  );
}
