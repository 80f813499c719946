// The points of a profile as handles in the track: dragged in depth and weight at once, snapping to zone boundaries and
// round numbers; arrows nudge, Delete removes, Insert adds one between this point and the next.
import { useBench, useSnapshot } from "../../design/context";
import type { Point } from "../../design/types";
import { setCursor } from "../../depth/cursor";
import type { DepthScale } from "../../depth/scale";
import { at, firstCrossings } from "../../depth/scale";
import { restingDepth } from "../../depth/snapping";
import { useGrip } from "../../depth/useGrip";
import { useUnits } from "../../ui/units";

const PROFILES = ["pore", "fracture", "stability"] as const;
export type ProfileKey = (typeof PROFILES)[number];
const COLOURS: Record<ProfileKey, string> = { pore: "var(--iris)", fracture: "var(--rust)", stability: "var(--mute)" };

export function isProfileKey(tab: string): tab is ProfileKey {
  return (PROFILES as readonly string[]).includes(tab);
}

interface PointGripsProps {
  profile: ProfileKey;
  scale: DepthScale;
  x: (ppg: number) => number;
  ppgAt: (px: number) => number;
}

export function PointGrips(props: PointGripsProps) {
  const document = useSnapshot("document");
  const evaluation = useSnapshot("evaluation");
  if (evaluation === null) return null;
  const first = firstCrossings(evaluation.basis);
  const mdOf = (tvdFt: number) => at(first.tvd, first.md, tvdFt);
  const tvdOf = (mdFt: number) => at(evaluation.basis.axis_md_ft, evaluation.basis.axis_tvd_ft, mdFt);
  return document.ground[props.profile].map((point, index) => (
    <PointGrip key={index} {...props} index={index} point={point} mdOf={mdOf} tvdOf={tvdOf} />
  ));
}

interface PointGripProps extends PointGripsProps {
  index: number;
  point: Point;
  mdOf: (tvdFt: number) => number;
  tvdOf: (mdFt: number) => number;
}

function PointGrip({ profile, scale, x, ppgAt, index, point, mdOf, tvdOf }: PointGripProps) {
  const { session, typeOver } = useBench();
  const units = useUnits();
  const path = `/ground/${profile}`;
  const points = () => session.snapshot().document.ground[profile];
  const label = `${profile} point ${index + 1}`;
  const put = (tvdFt: number, ppg: number) => {
    const all = points();
    const above = all[index - 1]?.tvd_ft ?? 0;
    const below = all[index + 1]?.tvd_ft ?? Infinity;
    const next = { tvd_ft: Math.min(below, Math.max(above, tvdFt)), emw_ppg: Math.min(30, Math.max(0.5, ppg)) };
    const now = all[index]!;
    if (next.tvd_ft === now.tvd_ft && next.emw_ppg === now.emw_ppg) return;
    session.edit([{ path: `${path}/${index}`, value: next }]);
    setCursor(mdOf(next.tvd_ft));
  };
  const grip = useGrip<Point>({
    held: () => points()[index]!,
    take: () => undefined,
    drag: (held, from, to, free) => {
      const boundaries = (session.snapshot().evaluation?.ground.zones ?? []).flatMap((z) => [z.top_md_ft, z.base_md_ft]);
      const moved = scale.md(scale.y(mdOf(held.tvd_ft)) + to.y - from.y);
      const rest = boundaries.find((b) => b === restingDepth(moved, boundaries, scale, units, free));
      // a boundary is taken as it is; anything else is rounded in TVD, which is what the point holds
      const tvdFt = rest === undefined ? units.snapDepth(tvdOf(moved), free) : tvdOf(rest);
      put(to.y === from.y ? held.tvd_ft : tvdFt, units.snapEmw(ppgAt(x(held.emw_ppg) + to.x - from.x), free));
    },
    nudge: (held, right, down) => {
      const tvdFt = down === 0 ? held.tvd_ft : units.snapDepth(held.tvd_ft + down * units.depthStepFt());
      const ppg = right === 0 ? held.emw_ppg : units.snapEmw(held.emw_ppg + right * units.emwStepPpg());
      put(tvdFt, ppg);
    },
    type: (box, first) => {
      typeOver({
        box,
        label: `${label}, EMW`,
        quantity: "emw",
        value: points()[index]!.emw_ppg,
        first,
        commit: (ppg) => {
          put(points()[index]!.tvd_ft, ppg);
        },
      });
    },
    remove: () => {
      session.edit([{ path, value: points().filter((_, i) => i !== index) }]);
    },
    insert: () => {
      const all = points();
      const next = all[index + 1] ?? { tvd_ft: all[index]!.tvd_ft + 1000, emw_ppg: all[index]!.emw_ppg };
      const here = all[index]!;
      const between = {
        tvd_ft: units.snapDepth((here.tvd_ft + next.tvd_ft) / 2),
        emw_ppg: units.snapEmw((here.emw_ppg + next.emw_ppg) / 2, true),
      };
      session.edit([{ path, value: [...all.slice(0, index + 1), between, ...all.slice(index + 1)] }]);
    },
  });
  const y = scale.axis.kind === "tvd" ? scale.axisY(point.tvd_ft) : scale.y(mdOf(point.tvd_ft));
  const text = `${units.text(point.emw_ppg, "emw")} at ${units.text(point.tvd_ft, "depth")} TVD`;
  return (
    <g
      tabIndex={0}
      role="slider"
      aria-label={label}
      aria-valuenow={point.emw_ppg}
      aria-valuemin={0.5}
      aria-valuemax={30}
      aria-valuetext={text}
      data-grip={`${profile}-${index}`}
      className="cursor-move touch-none"
      {...grip}
    >
      <title>{text}. Drag, arrow keys, double click to type, Insert, Delete</title>
      <circle cx={x(point.emw_ppg)} cy={y} r={9} fill="transparent" />
      <circle cx={x(point.emw_ppg)} cy={y} r={4} fill="var(--sheet)" stroke={COLOURS[profile]} strokeWidth={1.8} />
    </g>
  );
}
