// How deep the hole is today, and the depth at which its casing is supposed to be set: dragged, nudged or typed.
import { useParams } from "react-router";
import { useBench, useEvaluated, useSnapshot } from "../design/context";
import { setCursor } from "../depth/cursor";
import type { DepthScale } from "../depth/scale";
import { restingDepth } from "../depth/snapping";
import { useGrip } from "../depth/useGrip";
import { useUnits } from "../ui/units";
import { AXIS_PX, SECTION_PX } from "./geometry";

const LEAST_GAP_FT = 10;
const TAG_PX = 68;

export function TodayLine({ scale }: { scale: DepthScale }) {
  const { session } = useBench();
  const units = useUnits();
  const { step } = useParams();
  const logbook = useEvaluated((e) => e.logbook);
  const whatIf = useSnapshot("whatIf");
  const from = useSnapshot("supposedFrom");
  const today = (from ?? session.snapshot().evaluation)?.logbook.today_md_ft ?? null;
  const at = whatIf === null ? (logbook?.drilling ?? null) : session.snapshot().document.strings.findIndex((s) => s.id === whatIf.string);
  const move = (mdFt: number) => {
    const { document, evaluation } = session.snapshot();
    const string = at === null ? undefined : document.strings[at];
    if (string === undefined || evaluation === null || today === null) return;
    const below = document.strings[at! + 1]?.shoe_md_ft ?? evaluation.basis.total_md_ft + LEAST_GAP_FT;
    const to = Math.max(today, Math.min(mdFt, below - LEAST_GAP_FT));
    if (session.snapshot().whatIf?.mdFt !== to) session.logged.suppose({ string: string.id, mdFt: to });
    setCursor(to);
  };
  const grip = useGrip<number>({
    held: () => session.snapshot().whatIf?.mdFt ?? today ?? 0,
    take: () => undefined,
    drag: (start, a, b, free) => {
      const zones = session.snapshot().evaluation?.ground.zones ?? [];
      const boundaries = zones.flatMap((z) => [z.top_md_ft, z.base_md_ft]);
      move(restingDepth(scale.md(scale.y(start) + b.y - a.y), boundaries, scale, units, free));
    },
    nudge: (held, _, down) => {
      if (down !== 0) move(units.snapDepth(held + down * units.depthStepFt()));
    },
    type: () => undefined,
  });
  if (today === null || !scale.shows(today)) return null;
  const asks = step === "logbook" && at !== null && at >= 0;
  const y = scale.y(today);
  const to = whatIf?.mdFt ?? today;
  return (
    <g>
      <line
        x1={AXIS_PX}
        x2={SECTION_PX}
        y1={y}
        y2={y}
        stroke="var(--petrol)"
        strokeWidth={1.4}
        strokeDasharray="1 3"
        pointerEvents="none"
      />
      <text
        x={SECTION_PX - 4}
        y={asks ? y - 12 : y - 3}
        fontSize={10.5}
        textAnchor="end"
        className="halo"
        style={{ fill: "var(--petrol)" }}
        pointerEvents="none"
      >
        today {units.number(today, "depth")}
      </text>
      {asks && scale.shows(to) && (
        <g
          tabIndex={0}
          role="slider"
          aria-label="Casing set here today?"
          aria-orientation="vertical"
          aria-valuemin={Math.round(today)}
          aria-valuemax={Math.round(scale.axis.totalMdFt)}
          aria-valuenow={Math.round(to)}
          aria-valuetext={units.text(to, "depth")}
          data-grip="today"
          className="pointer-events-auto cursor-ns-resize touch-none"
          {...grip}
          onKeyDown={(event) => {
            if (event.key === "Escape") session.logged.suppose(null);
            grip.onKeyDown(event);
          }}
        >
          <title>Drag: what if the casing were set here today?</title>
          <line x1={AXIS_PX} x2={SECTION_PX} y1={scale.y(to)} y2={scale.y(to)} stroke="transparent" strokeWidth={14} />
          <line x1={AXIS_PX} x2={SECTION_PX} y1={scale.y(to)} y2={scale.y(to)} stroke="var(--gold)" strokeWidth={2} />
          <rect x={SECTION_PX - TAG_PX} y={scale.y(to) - 9} width={TAG_PX - 2} height={18} rx={3} fill="var(--gold)" />
          <text x={SECTION_PX - TAG_PX + 5} y={scale.y(to) + 4} fontSize={11} fontWeight={600} style={{ fill: "var(--on-gold)" }}>
            {whatIf === null ? "set here?" : units.number(to, "depth")}
          </text>
        </g>
      )}
    </g>
  );
}
