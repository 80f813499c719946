// The loads of the string in hand against depth: pressures with their ratings, axial forces with what stands them, and
// each case's factors where they are least.
import { useState } from "react";
import { useBench, useSnapshot } from "../../design/context";
import type { LoadsResult } from "../../design/types";
import { interpolate } from "../../depth/scale";
import type { DepthScale } from "../../depth/scale";
import type { HorizontalScale } from "../../depth/Track";
import { Track, line } from "../../depth/Track";
import { scaleLinear } from "d3-scale";
import { useUnits } from "../../ui/units";
import { AXIAL_VIEWS, PRESSURE_VIEWS, axialCurves, forceScale, governingCase, pressureCurves } from "./shown";
import type { AxialView, Curve, PressureView } from "./shown";

interface TracksProps {
  scale: DepthScale;
  widthPx: number;
  loads: LoadsResult | undefined;
  chosen: string | null;
}

function ViewChoice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly T[];
  onChange: (v: T) => void;
}) {
  return (
    <select
      aria-label={label}
      className="cell max-w-full truncate bg-transparent px-0.5 font-narrow text-[12.5px] font-semibold"
      value={value}
      onChange={(event) => {
        onChange(event.target.value as T);
      }}
    >
      {options.map((option) => (
        <option key={option} value={option} className="bg-sheet text-ink">
          {option[0]!.toUpperCase() + option.slice(1)}
        </option>
      ))}
    </select>
  );
}

function around(values: readonly number[], least: number): [number, number] {
  const known = values.filter((v) => Number.isFinite(v));
  return scaleLinear([Math.min(0, ...known), Math.max(least, ...known)], [0, 1])
    .nice(4)
    .domain() as [number, number];
}

interface CurvesProps {
  curves: readonly Curve[];
  chosen: string | null;
  md: readonly number[];
  at: (value: number) => number;
  scale: DepthScale;
}

/** Every case thin, the one in hand or the governing one thick. */
function Curves({ curves, chosen, md, at, scale }: CurvesProps) {
  const path = (curve: Curve) => line(md.map((depth, i) => [at(curve.values[i]!), scale.y(depth)] as const));
  const both = curves.some((c) => c.dashed);
  return (
    <>
      {curves.map((curve) => {
        const inHand = both || curve.name === chosen;
        return (
          <path
            key={curve.name}
            d={path(curve)}
            fill="none"
            stroke={inHand ? "var(--ink)" : "var(--mute)"}
            strokeWidth={inHand ? 2 : 1}
            strokeOpacity={inHand ? 1 : 0.6}
            strokeDasharray={curve.dashed ? "5 3" : undefined}
          >
            <title>{curve.name}</title>
          </path>
        );
      })}
    </>
  );
}

export function PressureLoads({ scale, widthPx, loads, chosen }: TracksProps) {
  const units = useUnits();
  const [view, setView] = useState<PressureView>("burst");
  const { selected } = useBench();
  const factor = units.factor("pressure");
  const curves = loads ? pressureCurves(loads, view, chosen) : [];
  const governing = chosen ?? (loads && view !== "inside and outside" ? (governingCase(loads, view)?.name ?? null) : null);
  const inHand = loads?.cases.find((c) => c.name === governing);
  const limit = view === "burst" ? loads?.ratings.burst_psi : view === "collapse" ? inHand?.collapse_rating_psi : undefined;
  const shown = governing ? curves.filter((c) => c.name === governing) : curves;
  const values = [...curves.flatMap((c) => c.values), ...(limit ?? [])].map((v) => Math.max(0, v * factor));
  const domain = around(values, 100 * factor);
  const title =
    view === "inside and outside" ? `Inside and outside${chosen ? `: ${chosen}` : ""}` : `${view}${governing ? `: ${governing}` : ""}`;
  const md = loads?.md_ft ?? [];
  return (
    <Track
      key={selected}
      title={title}
      heading={<ViewChoice label="Pressure track" value={view} options={PRESSURE_VIEWS} onChange={setView} />}
      unit={`${units.unit("pressure")}${governing ? ` · ${governing}` : ""}`}
      scale={scale}
      widthPx={widthPx}
      domain={domain}
      read={(mdFt) => {
        const parts = shown.map((c) => [c.name, interpolate(md, c.values, mdFt)] as const).filter(([, v]) => v !== null);
        const stands = limit ? interpolate(md, limit, mdFt) : null;
        if (parts.length === 0) return null;
        const text = parts
          .map(([name, v]) => (parts.length > 1 ? `${name} ${units.number(v, "pressure")}` : units.number(v, "pressure")))
          .join(" · ");
        return stands === null ? text : `${text} of ${units.number(stands, "pressure")}`;
      }}
      table={() => ({
        columns: [`MD, ${units.unit("depth")}`, ...curves.map((c) => c.name), ...(limit ? ["rating"] : [])],
        rows: md.map((depth, i) => [
          units.number(depth, "depth"),
          ...curves.map((c) => units.number(c.values[i]!, "pressure")),
          ...(limit ? [units.number(limit[i]!, "pressure")] : []),
        ]),
      })}
      summary={
        loads ? `${title[0]!.toUpperCase()}${title.slice(1)} against depth, with the pipe rating` : "No loads are known for this string"
      }
    >
      {(x) => (
        <>
          <Curves curves={curves} chosen={governing} md={md} at={(v) => x(Math.max(0, v * factor))} scale={scale} />
          {limit && (
            <path
              d={line(md.map((depth, i) => [x(limit[i]! * factor), scale.y(depth)] as const))}
              fill="none"
              stroke="var(--brick)"
              strokeWidth={1.6}
              strokeDasharray="5 3"
            />
          )}
        </>
      )}
    </Track>
  );
}

export function AxialLoads({ scale, widthPx, loads, chosen }: TracksProps) {
  const units = useUnits();
  const { selected } = useBench();
  const row = useSnapshot("evaluation")?.pipe.strings[selected];
  const [view, setView] = useState<AxialView>("axial force");
  const factors = view === "factors over asked";
  const force = forceScale(units.factor("force"), units.unit("force"));
  const factor = factors ? 1 : force.factor;
  const md = loads?.md_ft ?? [];
  const curves = loads ? axialCurves(loads, view) : [];
  const limits = loads && view === "axial force" ? [loads.ratings.tension_lbf, loads.ratings.compression_lbf] : [];
  const governing = chosen ?? (loads && !factors ? (governingCase(loads, "tension")?.name ?? null) : null);
  const inHand = curves.find((c) => c.name === governing);
  const domain: [number, number] = factors
    ? [0, MOST_SHARE]
    : around(
        [...curves.flatMap((c) => c.values), ...limits.flat()].map((v) => v * factor),
        10,
      );
  const unit = factors ? "minimum of each case; 1 meets the design factor" : `${force.label}${governing ? ` · ${governing}` : ""}`;
  const text = (value: number) => (factors ? value.toFixed(2) : `${units.number(value, "force")} ${units.unit("force")}`);
  return (
    <Track
      title={view}
      heading={<ViewChoice label="Axial track" value={view} options={AXIAL_VIEWS} onChange={setView} />}
      unit={unit}
      scale={scale}
      widthPx={widthPx}
      domain={domain}
      read={(mdFt) => {
        const value = inHand ? interpolate(md, inHand.values, mdFt) : null;
        return value === null ? null : text(value);
      }}
      table={() => ({
        columns: [`MD, ${units.unit("depth")}`, ...curves.map((c) => c.name)],
        rows: md.map((depth, i) => [
          units.number(depth, "depth"),
          ...curves.map((c) => (factors ? c.values[i]!.toFixed(2) : units.number(c.values[i]!, "force"))),
        ]),
      })}
      summary={loads ? `${view} of every case against depth` : "No loads are known for this string"}
    >
      {(x) => (
        <>
          {domain[0] < 0 && (
            <line x1={x(0)} x2={x(0)} y1={scale.y(md[0] ?? 0)} y2={scale.y(md[md.length - 1] ?? 0)} stroke="var(--ink)" strokeWidth={0.8} />
          )}
          <Curves curves={curves} chosen={governing} md={md} at={(v) => x(v * factor)} scale={scale} />
          {limits.map((limit, k) => (
            <path
              key={k}
              d={line(md.map((depth, i) => [x(limit[i]! * factor), scale.y(depth)] as const))}
              fill="none"
              stroke="var(--brick)"
              strokeWidth={1.6}
              strokeDasharray="5 3"
            />
          ))}
          {factors && loads && <FactorPoints loads={loads} chosen={chosen} x={x} scale={scale} />}
          {view === "axial force" && loads?.neutral_md_ft != null && (
            <Mark y={scale.y(loads.neutral_md_ft)} widthPx={widthPx} text="neutral in mud" />
          )}
          {view === "effective force" && row?.buckles_md_ft != null && (
            <Mark y={scale.y(row.buckles_md_ft)} widthPx={widthPx} text="buckles below" />
          )}
        </>
      )}
    </Track>
  );
}

const MOST_SHARE = 4;

/** A depth with what begins there. */
function Mark({ y, widthPx, text }: { y: number; widthPx: number; text: string }) {
  return (
    <g>
      <line x1={8} x2={widthPx - 8} y1={y} y2={y} stroke="var(--mute)" strokeDasharray="2 3" />
      <text x={10} y={y - 3} fontSize={10.5} style={{ fill: "var(--mute)" }}>
        {text}
      </text>
    </g>
  );
}

const SIGNS: Record<string, string> = { burst: "B", collapse: "C", tension: "T", compression: "P", triaxial: "V" };

/** Where each case is nearest to each limit: a letter for the kind, left of 1 is short. */
function FactorPoints({ loads, chosen, x, scale }: { loads: LoadsResult; chosen: string | null; x: HorizontalScale; scale: DepthScale }) {
  return (
    <>
      <line
        x1={x(1)}
        x2={x(1)}
        y1={scale.y(loads.md_ft[0]!)}
        y2={scale.y(loads.md_ft[loads.md_ft.length - 1]!)}
        stroke="var(--brick)"
        strokeWidth={1.6}
        strokeDasharray="5 3"
      />
      {loads.cases.flatMap((item) =>
        item.factors
          .filter((f) => f.share < 4)
          .map((f) => (
            <text
              key={`${item.name} ${f.kind}`}
              x={x(f.share)}
              y={Math.min(
                Math.max(scale.y(f.at_md_ft) + 4, scale.y(loads.md_ft[0]!) + 11),
                scale.y(loads.md_ft[loads.md_ft.length - 1]!) - 2,
              )}
              fontSize={11}
              textAnchor="middle"
              fontWeight={chosen === item.name ? 700 : 400}
              style={{ fill: f.share < 1 ? "var(--brick)" : chosen === item.name ? "var(--ink)" : "var(--mute)" }}
            >
              {SIGNS[f.kind]}
              <title>{`${item.name}, ${f.kind}: ${f.share.toFixed(2)} of what is asked`}</title>
            </text>
          )),
      )}
    </>
  );
}
