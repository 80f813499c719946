// On the depth axis while the rig is live: its days on the schedule, or its hook load on the planned one.
import { useBench, useEvaluated } from "../../design/context";
import { fromZero } from "../../depth/domain";
import type { DepthScale } from "../../depth/scale";
import { Track, line } from "../../depth/Track";
import { useUnits } from "../../ui/units";
import { DaysTrack } from "./DaysTrack";
import { useFeed } from "./Live";
import { doingOf, secondOf, useLiveState } from "./live";
import { usePlannedNow, useStringNow } from "./usePlannedNow";

const SECONDS_A_DAY = 86_400;

export function LiveTrack({ scale, widthPx }: { scale: DepthScale; widthPx: number }) {
  const { feed } = useFeed();
  const { spans, latest } = useLiveState();
  const doing = doingOf(spans[spans.length - 1]);
  const index = useStringNow(latest.hole_md_ft);
  if (doing === "running casing") return <HookLive scale={scale} widthPx={widthPx} index={index} simulated={feed?.simulated ?? false} />;
  return <DaysLive scale={scale} widthPx={widthPx} simulated={feed?.simulated ?? false} />;
}

function DaysLive({ scale, widthPx, simulated }: { scale: DepthScale; widthPx: number; simulated: boolean }) {
  const { session } = useBench();
  const { spans } = useLiveState();
  const begins = useEvaluated((e) => e.logbook.begins) ?? "";
  const spud = session.snapshot().document.runsheet.spud ?? "";
  const from = secondOf(begins !== "" ? begins : simulated && spud !== "" ? `${spud} 06:00` : "");
  const rows = spans.filter((s) => s.values.hole_md_ft !== undefined);
  const live = from === null ? [] : rows.map((s) => ({ day: (s.begins_s - from) / SECONDS_A_DAY, md_ft: s.values.hole_md_ft![1] }));
  return <DaysTrack scale={scale} widthPx={widthPx} live={live} />;
}

interface HookLiveProps {
  scale: DepthScale;
  widthPx: number;
  index: number;
  simulated: boolean;
}

function HookLive({ scale, widthPx, index, simulated }: HookLiveProps) {
  const units = useUnits();
  const { spans } = useLiveState();
  const { planned } = usePlannedNow("running casing", index, simulated);
  const factor = units.factor("force");
  const hook = planned.hook;
  const measured = spans.filter(
    (s) => doingOf(s) === "running casing" && s.values.hook_lbf !== undefined && s.values.bit_md_ft !== undefined,
  );
  const most = [...(hook?.up_lbf ?? []), ...measured.map((s) => s.values.hook_lbf![2])].map((v) => v * factor);
  const curve = (values: readonly number[], x: (v: number) => number) =>
    line((hook?.shoe_md_ft ?? []).map((md, i) => [x(values[i]! * factor), scale.y(md)] as const));
  return (
    <Track
      title="Hook load, planned and read"
      unit={`${units.unit("force")} by shoe depth`}
      scale={scale}
      widthPx={widthPx}
      domain={fromZero(most, 1_000 * factor)}
      read={(md) => {
        const near = measured.filter((s) => Math.abs(s.values.bit_md_ft![1] - md) < 100).pop();
        return near === undefined ? null : `read ${units.text(near.values.hook_lbf![2], "force")}`;
      }}
      table={() => ({
        columns: ["Shoe", "Read"],
        rows: measured.map((s) => [units.number(s.values.bit_md_ft![1], "depth"), units.number(s.values.hook_lbf![2], "force")]),
      })}
      summary="Hook load against depth of the shoe: planned running in and picked up, and as read"
    >
      {(x) => (
        <>
          {hook != null && (
            <>
              <path d={curve(hook.in_lbf, x)} fill="none" stroke="var(--mute)" strokeWidth={1.4} strokeDasharray="5 3" />
              <path d={curve(hook.up_lbf, x)} fill="none" stroke="var(--mute)" strokeWidth={1} strokeDasharray="2 3" />
            </>
          )}
          {measured.map((s, i) => (
            <circle
              key={i}
              cx={x(s.values.hook_lbf![2] * factor)}
              cy={scale.y(s.values.bit_md_ft![1])}
              r={1.8}
              fill="var(--ink)"
              data-read
            />
          ))}
        </>
      )}
    </Track>
  );
}
