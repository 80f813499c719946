// The rig live beside the plan: how the feed stands, what departs, the gauges, and what is measured drawn on what is planned.
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { Activity, CircleSlash, PlugZap, RefreshCw } from "lucide-react";
import { getFeed, tellDepartures } from "../../design/api";
import { useBench } from "../../design/context";
import type { FeedView, LiveSpan, PlannedNow } from "../../design/types";
import { SEVERITY } from "../../ui/mark";
import { useUnits } from "../../ui/units";
import { FeedForm } from "./FeedForm";
import { Gauges } from "./Gauges";
import type { LiveState } from "./live";
import { doingOf, moment, useLive } from "./live";
import { JobChart, PitChart } from "./liveCharts";
import { RigForm } from "./RigForm";
import { usePlannedNow, useStringNow } from "./usePlannedNow";

export function useFeed(): { feed: FeedView | undefined; set: (feed: FeedView) => void } {
  const { session } = useBench();
  const queries = useQueryClient();
  const key = ["feed", session.id];
  const { data } = useQuery({ queryKey: key, queryFn: () => getFeed(session.id), staleTime: Infinity });
  return { feed: data, set: (next) => queries.setQueryData(key, next) };
}

export function Live() {
  const { session } = useBench();
  const { feed, set } = useFeed();
  const on = feed?.on ?? false;
  const state = useLive(session.id, on, feed?.source ? `${feed.source.host}:${feed.source.port}` : "");
  if (feed === undefined) return <p className="text-mute">Asking for the feed…</p>;
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <Standing feed={feed} state={state} />
      {on && <Beside feed={feed} state={state} />}
      <div className="grid grid-cols-1 gap-3">
        <FeedForm key={`feed ${feed.simulated}`} feed={feed} onSet={set} />
        <RigForm feed={feed} onSet={set} />
      </div>
    </div>
  );
}

function Standing({ feed, state }: { feed: FeedView; state: LiveState }) {
  const where = feed.source == null ? "" : feed.simulated ? "the simulated rig" : `${feed.source.host}:${feed.source.port}`;
  const { records = 0, bad_lines: bad = 0 } = state.counts;
  const marks = {
    connected: { Icon: Activity, look: "text-moss", words: `Connected to ${where}` },
    connecting: { Icon: PlugZap, look: "text-mute", words: `Connecting to ${where}` },
    lost: { Icon: RefreshCw, look: "text-brick", words: `Lost ${where} (${state.why}); it is tried again` },
    stopped: { Icon: CircleSlash, look: "text-mute", words: "No feed is read" },
    unreached: { Icon: CircleSlash, look: "text-brick", words: "The server sends no more: open the page anew" },
  } as const;
  const { Icon, look, words } = marks[feed.on ? state.state : "stopped"];
  return (
    <p role="status" className={`flex flex-wrap items-center gap-x-2 text-[13px] ${look}`} data-feed={feed.on ? state.state : "stopped"}>
      <Icon size={14} aria-hidden /> {words}
      {feed.on && (
        <span className="text-[12px] text-mute tabular-nums">
          {state.atS > 0 && `rig’s clock ${moment(state.atS)}, `}
          {records.toLocaleString("en-US")} records{bad > 0 ? `, ${bad.toLocaleString("en-US")} lines not understood` : ""}
        </span>
      )}
    </p>
  );
}

/** The rig beside the plan. */
function Beside({ feed, state }: { feed: FeedView; state: LiveState }) {
  const last = state.spans[state.spans.length - 1];
  const doing = doingOf(last);
  const index = useStringNow(state.latest.hole_md_ft);
  const { planned } = usePlannedNow(doing, index, feed.simulated);
  if (last === undefined) return <p className="text-mute">Nothing has come yet.</p>;
  return (
    <>
      <Departing planned={planned} spans={state.spans} feed={feed} />
      <Gauges state={state} doing={doing} index={index} />
      {doing === "cementing" ? <JobChart planned={planned} spans={state.spans} /> : <PitChart spans={state.spans} />}
    </>
  );
}

const WINDOW_S = 3_600;

function Departing({ planned, spans, feed }: { planned: PlannedNow; spans: readonly LiveSpan[]; feed: FeedView }) {
  const units = useUnits();
  const { limits } = feed.source!;
  const last = spans[spans.length - 1]!;
  const window = spans.filter((s) => s.begins_s > last.begins_s - Math.max(WINDOW_S, limits.window_minutes * 60));
  const { data } = useQuery({
    queryKey: ["departures", planned, last.begins_s, limits],
    queryFn: ({ signal }) => tellDepartures(planned, window, limits, signal),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 1_000,
  });
  if (data === undefined) return null;
  if (data.length === 0)
    return (
      <p role="status" className="text-[13px] text-moss" data-departures="0">
        Nothing departs from the plan within its limits.
      </p>
    );
  return (
    <ul className="grid gap-y-1" aria-label="Departures from the plan" aria-live="assertive" data-departures={data.length}>
      {data.map((d) => {
        const { Icon, text, word, border } = SEVERITY[d.severity];
        const alarm = d.severity === "stop";
        return (
          <li
            key={d.watch}
            className={`${border} pl-2 ${alarm ? "py-1 text-[16px] font-semibold" : "text-[13px]"}`}
            data-watch={d.watch}
            data-severity={d.severity}
          >
            <Icon size={alarm ? 16 : 13} aria-label={`${word}:`} className={`mr-1 inline align-[-2px] ${text}`} />
            <span className={alarm ? text : ""}>{units.words(d.words)}</span>
          </li>
        );
      })}
    </ul>
  );
}
