// The mud window as pressures: pore, fracture and the mud of each hole against depth.
import { useDrawnStrings, useSnapshot } from "../design/context";
import { useGroundDrawing } from "../design/drawings";
import { usePreferences } from "../preferences";
import { useUnits } from "../ui/units";
import { fromZero } from "./domain";
import type { DepthScale } from "./scale";
import { interpolate } from "./scale";
import { Track, line } from "./Track";

/** Goes between equivalent mud weights and pressures. */
export function WindowSwitch() {
  const { window, prefer } = usePreferences();
  const units = useUnits();
  const other = window === "emw" ? "pressure" : "emw";
  return (
    <button
      type="button"
      className="no-print rounded border border-rule px-1 text-[11px] leading-[15px] hover:border-petrol"
      title={other === "pressure" ? "Show the window as pressures" : "Show the window as equivalent mud weights"}
      onClick={() => {
        prefer({ window: other });
      }}
    >
      {units.unit(other)}
    </button>
  );
}

export function PressureTrack({ scale, widthPx }: { scale: DepthScale; widthPx: number }) {
  const evaluation = useSnapshot("evaluation");
  const pressures = useGroundDrawing()?.pressures ?? [];
  const strings = useDrawnStrings();
  const units = useUnits();
  if (evaluation === null) return null;
  const factor = units.factor("pressure");
  const known = (key: "pore_psi" | "fracture_psi") => pressures.filter((p) => p[key] !== null).map((p) => ({ md: p.md_ft, psi: p[key]! }));
  const [pore, fracture] = [known("pore_psi"), known("fracture_psi")];
  const at = (points: readonly { md: number; psi: number }[], md: number) =>
    interpolate(
      points.map((p) => p.md),
      points.map((p) => p.psi),
      md,
    );
  const show = (psi: number | null) => (psi === null ? "unknown" : units.number(psi, "pressure"));
  const read = (md: number) => {
    const [p, f] = [at(pore, md), at(fracture, md)];
    return p === null && f === null ? null : `pore ${show(p)} · frac ${show(f)}`;
  };
  const muds = evaluation.mud.strings.flatMap((row, i) =>
    row.top_psi === null || row.bottom_psi === null || !strings[i]
      ? []
      : [{ string: strings[i], top: row.top_psi, bottom: row.bottom_psi }],
  );
  return (
    <Track
      title="Mud window"
      unit={`pressure, ${units.unit("pressure")}`}
      scale={scale}
      widthPx={widthPx}
      domain={fromZero(
        fracture.map((p) => p.psi * factor),
        100 * factor,
      )}
      read={read}
      table={() => ({
        columns: [`MD, ${units.unit("depth")}`, `pore, ${units.unit("pressure")}`, "fracture"],
        rows: pressures.map((p) => [units.number(p.md_ft, "depth"), show(p.pore_psi), show(p.fracture_psi)]),
      })}
      summary="Mud window as pressures against depth: pore, fracture, and the mud of each section"
      action={<WindowSwitch />}
    >
      {(x) => (
        <>
          <path d={line(pore.map((p) => [x(p.psi * factor), scale.y(p.md)] as const))} fill="none" stroke="var(--iris)" strokeWidth={1.8} />
          <path
            d={line(fracture.map((p) => [x(p.psi * factor), scale.y(p.md)] as const))}
            fill="none"
            stroke="var(--rust)"
            strokeWidth={1.8}
            strokeDasharray="5 3"
          />
          {muds.map(({ string, top, bottom }, i) => (
            <line
              key={i}
              x1={x(top * factor)}
              y1={scale.y(string.previous_shoe_md_ft)}
              x2={x(bottom * factor)}
              y2={scale.y(string.shoe_md_ft)}
              stroke="var(--petrol)"
              strokeWidth={2.4}
            />
          ))}
        </>
      )}
    </Track>
  );
}
