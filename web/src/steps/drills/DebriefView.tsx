// The debrief: the score rule by rule, what was done when, pressures against their limits and theory, the replay on the section.
import { useQuery } from "@tanstack/react-query";
import { ArrowLeft } from "lucide-react";
import { useEffect } from "react";
import { getDebrief } from "../../design/api";
import type { Debrief } from "../../design/types";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { DebriefCharts } from "./DebriefCharts";
import { momentAt, setReplay, showReplay, useReplay } from "./replay";
import { clockOf } from "./useDrill";

export function DebriefView({ drill, onClose }: { drill: number; onClose: () => void }) {
  const { data, error } = useQuery({ queryKey: ["debrief", drill], queryFn: () => getDebrief(drill), staleTime: Infinity });
  useEffect(() => {
    showReplay(data ?? null);
    return () => {
      showReplay(null);
    };
  }, [data]);
  return (
    <div className="min-h-0 flex-1 overflow-auto pr-1 pb-3" data-testid="debrief" tabIndex={0} role="region" aria-label="Debrief">
      <Button onClick={onClose}>
        <ArrowLeft size={12} aria-hidden /> Back to drills
      </Button>
      {error && <Empty>This debrief cannot be opened: {error.message}</Empty>}
      {data !== undefined && <Shown debrief={data} />}
    </div>
  );
}

function Shown({ debrief }: { debrief: Debrief }) {
  const units = useUnits();
  const missed = debrief.outcomes.filter((o) => o.credit < 1);
  const kept = debrief.outcomes.filter((o) => o.credit >= 1);
  return (
    <>
      <p className="mt-2 flex items-baseline gap-3">
        <span className="text-[28px] leading-none font-semibold tabular-nums" data-testid="score">
          {Math.round(debrief.score)} %
        </span>
        <span className="text-[13px] text-mute">
          {clockOf(debrief.clock_s)} · scored by {units.words(debrief.school)} · a rehearsal aid, no certificate
        </span>
      </p>
      <div className="mt-3 grid grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] gap-x-6 gap-y-4 max-[1280px]:grid-cols-1">
        <div>
          <DebriefCharts debrief={debrief} />
        </div>
        <div className="grid content-start gap-y-3">
          <Rules title={`To do better: ${missed.length}`} rows={missed} empty="Nothing: every rule was kept." />
          <Rules title={`Done right: ${kept.length}`} rows={kept} empty="None yet." />
        </div>
      </div>
      <Timeline debrief={debrief} />
    </>
  );
}

function Rules({ title, rows, empty }: { title: string; rows: Debrief["outcomes"]; empty: string }) {
  const units = useUnits();
  return (
    <section aria-label={title}>
      <h3 className="border-b border-rule text-[13px] font-semibold">{title}</h3>
      {rows.length === 0 && <p className="py-1 text-[12.5px] text-mute">{empty}</p>}
      <ul>
        {rows.map((o) => (
          <li key={o.key} className="border-b border-rule/60 py-1 text-[12.5px] leading-snug" data-rule={o.key} data-credit={o.credit}>
            <span className="flex justify-between gap-2">
              <span className="font-semibold">{o.title}</span>
              <span className="tabular-nums text-mute">
                {Math.round(o.weight * o.credit)} of {o.weight}
              </span>
            </span>
            <span className={o.credit < 1 ? "text-brick" : "text-moss"}>{units.words(o.done)}</span>
            {o.credit < 1 && (
              <>
                <br />
                Asked: {units.words(o.expected)}.
                <br />
                <span className="text-mute">
                  {o.why} ({o.source})
                </span>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Timeline({ debrief }: { debrief: Debrief }) {
  const units = useUnits();
  const shown = useReplay();
  const now = shown === null ? -1 : debrief.series.at_s[shown.at]!;
  return (
    <section aria-label="Timeline" className="mt-4">
      <h3 className="border-b border-rule text-[13px] font-semibold">Timeline</h3>
      <ol>
        {debrief.timeline.map((row, i) => (
          <li key={i} className={`flex gap-2 border-b border-rule/60 py-px text-[12.5px] ${row.at_s <= now ? "" : "opacity-55"}`}>
            <button
              type="button"
              className="text-petrol tabular-nums hover:underline"
              aria-label={`Go to ${clockOf(row.at_s)}`}
              onClick={() => setReplay(momentAt(debrief, row.at_s))}
            >
              {clockOf(row.at_s)}
            </button>
            <span className={row.kind === "happened" ? "font-semibold" : row.kind === "refused" ? "text-brick" : ""}>
              {units.words(row.words)}
            </span>
            {row.why !== "" && <span className="text-mute">{row.kind === "refused" ? `not done: ${row.why}` : row.why}</span>}
          </li>
        ))}
      </ol>
    </section>
  );
}
