// The clock of a drifting rig: offset against time, the steps under it, and a hand that is dragged or played through them.
import { useEffect, useRef, useState } from "react";
import type { AcrossRow, DisconnectResult, DriftRow } from "../../design/types";
import { Chart } from "../../ui/Chart";
import { Button } from "../../ui/Button";
import { useUnits } from "../../ui/units";

const WIDTH = 620;
const HEIGHT = 190;
/** Seconds of the drift in one second of playing. */
const PACE = 24;

export function DriftClock({ found, row }: { found: DisconnectResult; row: DriftRow }) {
  const units = useUnits();
  const [at, setAt] = useState(0);
  const [playing, setPlaying] = useState(false);
  const [picked, setPicked] = useState(0);
  const across = found.across[picked];
  const limit = row.seconds!;
  const red = row.red_s!;
  const yellow = row.yellow_s!;
  const end = Math.max(limit * 1.12, red + found.answer_s + found.emergency_s + 10);
  usePlaying(playing, end, setAt, setPlaying);
  const speed = row.drift_ft_min! / 60;
  const begun = { secure: yellow, emergency: red };
  const steps = found.steps.map((s) => ({ ...s, from: begun[s.when] + s.begins_s, to: begun[s.when] + s.ends_s }));
  const now = steps.filter((s) => at >= s.from && at < s.to).map((s) => s.name);
  const last = Math.max(0, ...steps.map((s) => s.to));
  const shears = steps.find((s) => s.when === "emergency")?.to ?? red;
  return (
    <div className="mt-2">
      <Chart
        label={`Offset against time in ${row.name}`}
        x={{ title: "after power is lost", quantity: "minutes", most: end / 60 }}
        y={{ title: "offset", quantity: "depth", most: (row.limit_ft ?? 0) * 1.2 }}
        widthPx={WIDTH}
        heightPx={HEIGHT}
      >
        {({ x, y, right, bottom }) => (
          <>
            <rect x={x(yellow / 60)} y={12} width={x(red / 60) - x(yellow / 60)} height={bottom - 12} fill="var(--gold)" opacity={0.18} />
            <rect x={x(red / 60)} y={12} width={x(limit / 60) - x(red / 60)} height={bottom - 12} fill="var(--brick)" opacity={0.16} />
            <line x1={x(0)} x2={x(end / 60)} y1={y(0)} y2={y(speed * end * 1)} stroke="var(--ink)" strokeWidth={1.8} clipPath="inset(0)" />
            <line x1={x(0)} x2={right} y1={y(row.limit_ft!)} y2={y(row.limit_ft!)} stroke="var(--brick)" strokeDasharray="5 3" />
            <text x={x(0) + 90} y={y(row.limit_ft!) - 4} fontSize={11} style={{ fill: "var(--brick)" }}>
              lower flex joint at its limit
            </text>
            {steps.map((s, i) => (
              <rect
                key={i}
                x={x(s.from / 60)}
                y={bottom - 9 - (s.when === "emergency" ? 0 : 10)}
                width={Math.max(1, x(s.to / 60) - x(s.from / 60) - 1)}
                height={8}
                fill={s.when === "emergency" ? "var(--brick)" : "var(--gold)"}
              >
                <title>{s.name}</title>
              </rect>
            ))}
            <line x1={x(at / 60)} x2={x(at / 60)} y1={10} y2={bottom} stroke="var(--petrol)" strokeWidth={1.5} />
            <circle cx={x(at / 60)} cy={y(Math.min(speed * at, (row.limit_ft ?? 0) * 1.2))} r={4} fill="var(--petrol)" />
          </>
        )}
      </Chart>
      <div className="flex items-center gap-2 text-[12.5px]">
        <Button
          onClick={() => {
            if (!playing && at >= end) setAt(0);
            setPlaying(!playing);
          }}
        >
          {playing ? "Pause" : "Play"}
        </Button>
        <input
          type="range"
          aria-label="Time after power is lost"
          className="w-64 accent-[var(--petrol)]"
          min={0}
          max={Math.ceil(end)}
          step={1}
          value={Math.round(at)}
          onChange={(event) => {
            setPlaying(false);
            setAt(Number(event.target.value));
          }}
        />
        <output className="min-w-0 flex-1" aria-live="off" data-now={now.join("; ")}>
          <b>{units.text(at / 60, "minutes")}</b>, {units.text(speed * at, "depth")} off:{" "}
          {said(at, { yellow, red, limit, last, now, none: row.red_ft! <= 0 })}
          {at >= shears && across !== undefined && <CutOf across={across} />}
        </output>
      </div>
      {across !== undefined && (
        <label className="mt-1 flex items-center gap-2 text-[12.5px]">
          Across the shear rams
          <select
            className="rounded border border-rule bg-sheet px-1"
            aria-label="Across the shear rams"
            value={picked}
            onChange={(event) => {
              setPicked(Number(event.target.value));
            }}
          >
            {found.across.map((a, i) => (
              <option key={i} value={i}>
                {units.words(a.what)}, section to {units.words(a.section)}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

/** What the shears did to what stands across them. */
function CutOf({ across }: { across: AcrossRow }) {
  const units = useUnits();
  const bad = across.cut === "not cut" || across.cut === "unknown";
  return (
    <b className={`ml-1 ${bad ? "text-brick" : ""}`}>
      {units.words(across.what)}: {across.by === "" ? across.cut : `${across.cut} by ${across.by}`}
      {across.cut === "not cut" ? "; the riser package cannot leave" : ""}
    </b>
  );
}

interface Marks {
  yellow: number;
  red: number;
  limit: number;
  last: number;
  now: readonly string[];
  none: boolean;
}

function said(at: number, { yellow, red, limit, last, now, none }: Marks): string {
  if (at >= limit && at < last) return `the flex joint is past its limit; ${now.join(", ") || "waiting for the crew"}`;
  if (at >= last) return last <= limit ? "unlatched" : "unlatched too late";
  if (now.length > 0) return now.join(", ");
  if (at >= red) return none ? "no time: the crew acts at once" : "red: the emergency sequence is begun";
  return at >= yellow ? "yellow: hung off, ready" : "drifting";
}

/** Goes on with the frames while it plays. */
function usePlaying(playing: boolean, end: number, setAt: (next: (at: number) => number) => void, setPlaying: (on: boolean) => void) {
  const before = useRef(0);
  useEffect(() => {
    if (!playing) return;
    let frame = 0;
    before.current = performance.now();
    const go = (time: number) => {
      const passed = ((time - before.current) / 1000) * PACE;
      before.current = time;
      setAt((at) => {
        if (at + passed < end) return at + passed;
        setPlaying(false);
        return end;
      });
      frame = requestAnimationFrame(go);
    };
    frame = requestAnimationFrame(go);
    return () => {
      cancelAnimationFrame(frame);
    };
  }, [playing, end, setAt, setPlaying]);
}
