// The moment of a debrief on the section: string, gas in the annulus, what is closed, and rock that breaks.
import { useReplay } from "../steps/drills/replay";
import { DepthClip } from "../depth/DepthClip";
import type { DepthScale } from "../depth/scale";
import { CENTRE, SECTION_PX } from "./geometry";

const GAS_HALF_PX = 15;
const STRING_HALF_PX = 3;
const LEAST_PX = 3;

export function DrillReplay({ scale }: { scale: DepthScale }) {
  const shown = useReplay();
  if (shown === null) return null;
  const { debrief, at } = shown;
  const { series, limits } = debrief;
  const bit = series.bit_md_ft[at] ?? null;
  const gas = series.gas[at] ?? [];
  const broken = (series.loss_bpm[at] ?? 0) > 0.01 ? limits.broke_md_ft : null;
  const closed = (series.closed[at] ?? []).length > 0;
  const y = (md: number) => scale.y(md);
  return (
    <svg width={SECTION_PX} height={scale.heightPx} className="own-layer pointer-events-none absolute inset-0" data-testid="replay">
      <DepthClip scale={scale} widthPx={SECTION_PX}>
        {gas.map(([top, base], i) => (
          <rect
            key={i}
            x={CENTRE - GAS_HALF_PX}
            width={2 * GAS_HALF_PX}
            y={y(top)}
            height={Math.max(y(base) - y(top), LEAST_PX)}
            rx={2}
            fill="var(--gold)"
            fillOpacity={0.75}
            data-gas
          />
        ))}
        {bit !== null && (
          <>
            <rect x={CENTRE - STRING_HALF_PX} width={2 * STRING_HALF_PX} y={y(0)} height={Math.max(y(bit) - y(0), 0)} fill="var(--ink)" />
            <path d={`M${CENTRE - 7},${y(bit)}h14l-7,7z`} fill="var(--ink)" />
          </>
        )}
        {closed && (
          <line
            x1={CENTRE - 26}
            x2={CENTRE + 26}
            y1={y(limits.stack_md_ft)}
            y2={y(limits.stack_md_ft)}
            stroke="var(--brick)"
            strokeWidth={5}
          />
        )}
        {broken !== null && (
          <g data-testid="breaks">
            <line
              x1={CENTRE - 60}
              x2={CENTRE + 60}
              y1={y(broken)}
              y2={y(broken)}
              stroke="var(--brick)"
              strokeWidth={2}
              strokeDasharray="4 3"
            />
            <text x={CENTRE + 62} y={y(broken) + 4} fontSize={11.5} fontWeight={600} className="halo" style={{ fill: "var(--brick)" }}>
              rock takes mud
            </text>
          </g>
        )}
      </DepthClip>
    </svg>
  );
}
