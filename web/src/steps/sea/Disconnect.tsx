// The disconnect: its steps on the clock of a drifting rig, the circles in each weather, what stands across the stack.
import { useState } from "react";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { DisconnectResult } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Button } from "../../ui/Button";
import { Facts } from "../../ui/Facts";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { Outcome } from "../../ui/Outcome";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { DriftClock } from "./DriftClock";

export function Disconnect({ found }: { found: DisconnectResult | null }) {
  return (
    <div className="grid grid-cols-1 gap-y-4">
      {found === null ? <Empty>No disconnect follows yet: it needs the riser and its stack.</Empty> : <Clock found={found} />}
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-6 gap-y-4 max-[1180px]:grid-cols-1">
        <Sequence found={found} />
        <Sea />
      </div>
      {found !== null && <Across found={found} />}
      {found !== null && <Barriers found={found} />}
      <After />
    </div>
  );
}

function Clock({ found }: { found: DisconnectResult }) {
  const units = useUnits();
  const [picked, setPicked] = useState(0);
  const known = found.drift.map((row, i) => ({ row, i })).filter(({ row }) => row.seconds !== null);
  const shown = known.find(({ i }) => i === picked) ?? known[0];
  return (
    <section aria-label="Drift">
      <Titled title="Power lost: the rig drifts">
        <Facts
          label="Circles in each weather"
          heads={[
            { title: "Weather" },
            { title: "Drift", unit: units.unit("trip_speed") },
            { title: "To the limit", unit: units.unit("minutes") },
            { title: "Flex joint's limit at", unit: units.unit("depth") },
            { title: "Red circle", unit: units.unit("depth") },
            { title: "Yellow circle", unit: units.unit("depth") },
          ]}
          bad={(r) => (found.drift[r]!.yellow_ft ?? 1) <= 0}
          rows={found.drift.map((row, i) => [
            <button
              key="w"
              type="button"
              className={`text-left underline-offset-2 hover:underline ${shown?.i === i ? "font-semibold" : ""}`}
              aria-pressed={shown?.i === i}
              onClick={() => {
                setPicked(i);
              }}
            >
              {row.name || `weather ${i + 1}`}
            </button>,
            row.drift_ft_min === null ? "unknown" : units.number(row.drift_ft_min, "trip_speed"),
            row.seconds === null ? (
              "–"
            ) : (
              <Headline key="s" working={`sea/drift/${i}`} title="time to the limit">
                {units.number(row.seconds / 60, "minutes")}
              </Headline>
            ),
            units.number(row.limit_ft, "depth"),
            circle(row.red_ft, units.number(row.red_ft, "depth")),
            circle(row.yellow_ft, units.number(row.yellow_ft, "depth")),
          ])}
        />
      </Titled>
      {shown !== undefined && <DriftClock key={shown.i} found={found} row={shown.row} />}
    </section>
  );
}

/** A circle inside of which the rig never is: there is no time for what begins there. */
function circle(radius: number | null, text: string): string {
  return radius === null ? "–" : radius <= 0 ? "none" : text;
}

function Sequence({ found }: { found: DisconnectResult | null }) {
  const { session } = useBench();
  const typed = useDocument((d) => d.sea.disconnect.length > 0);
  const rows = found?.steps.map((s) => ({ name: s.name, seconds: s.ends_s - s.begins_s, when: s.when })) ?? [];
  return (
    <section aria-label="Sequence">
      <Titled title="Sequence" note={typed ? "secure at the yellow circle, emergency at the red" : "the usual one, planning values"}>
        <Grid
          title="Disconnect sequence"
          target="disconnect"
          path="/sea/disconnect"
          columns={["name", "seconds", "when"]}
          sortBy={null}
          movable
          rows={typed ? undefined : rows}
          newRow={() => ({ name: "", seconds: 10, when: "emergency" })}
          empty="No step."
        />
      </Titled>
      {typed && (
        <Button
          className="mt-1"
          onClick={() => {
            session.edit([{ path: "/sea/disconnect", value: [] }]);
          }}
        >
          Take the usual sequence
        </Button>
      )}
      <FieldRow path="/policy/sea/answer_seconds" />
      <FieldRow path="/policy/sea/flex_deg" />
    </section>
  );
}

function Sea() {
  return (
    <section aria-label="Weather" className="grid grid-cols-1 content-start gap-y-3">
      <Titled title="Weather">
        <Grid
          title="Weather"
          target="weather"
          path="/sea/weather"
          columns={["name", "drift_ft_min", "heave_ft", "current_ft_s"]}
          sortBy={null}
          newRow={() => ({ name: "", drift_ft_min: null, heave_ft: null, current_ft_s: null })}
          empty="No weather given: whether the riser is unlatched in time is unknown."
        />
      </Titled>
      <Limits />
    </section>
  );
}

/** Weather limits, and for each piece of work the weathers in which it waits. */
function Limits() {
  const rows = useEvaluated((e) => e.sea.waits) ?? [];
  const weather = useDocument((d) => d.sea.weather.length);
  const told = (i: number) => {
    const row = rows[i];
    if (row === undefined || weather === 0) return "–";
    const parts = [row.waits.join(", "), row.unknown.length > 0 ? `unknown in ${row.unknown.join(", ")}` : ""].filter(Boolean);
    return parts.join("; ") || "none of these";
  };
  return (
    <Titled title="Weather limits">
      <Grid
        title="Weather limits"
        target="work_limits"
        path="/sea/limits"
        columns={["work", "heave_ft", "current_ft_s"]}
        told={[{ label: "Waits in", unit: "", px: 110, left: true, cell: told }]}
        sortBy={null}
        movable
        newRow={() => ({ work: "", heave_ft: null, current_ft_s: null })}
        empty="No limit given."
      />
    </Titled>
  );
}

/** A storm that is told before, and what is done to come back. */
function After() {
  const storm = useEvaluated((e) => e.sea.storm);
  const reconnect = useEvaluated((e) => e.sea.reconnect) ?? [];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-6 gap-y-4 max-[1180px]:grid-cols-1">
      <section aria-label="Storm">
        <Titled title="Leaving before a storm">
          {storm?.steps.map((step) => (
            <Outcome key={step.name} label={step.name} value={step.hours} quantity="hours" />
          ))}
          {storm != null && (
            <Outcome
              label="Together"
              value={storm.total_hours}
              quantity="hours"
              bad={storm.warning_hours !== null && storm.total_hours !== null && storm.total_hours > storm.warning_hours}
            />
          )}
          <FieldRow path="/sea/storm_hours" />
          <FieldRow path="/policy/sea/plug_hours" />
          <FieldRow path="/policy/sea/displace_bpm" />
        </Titled>
      </section>
      <section aria-label="Reconnect">
        <Titled title="Coming back">
          <ol className="list-decimal pl-5 text-[12.5px]">
            {reconnect.map((step) => (
              <li key={step} className="py-0.5">
                {step}
              </li>
            ))}
          </ol>
        </Titled>
      </section>
    </div>
  );
}

const MARGIN = { true: "held", false: "not held" } as const;

function Across({ found }: { found: DisconnectResult }) {
  const units = useUnits();
  return (
    <section aria-label="Across the stack">
      <Titled title="What stands across the stack">
        <Facts
          label="What stands across the stack, section by section"
          heads={[
            { title: "Section to" },
            { title: "Across", left: true },
            { title: "Hung off on", left: true },
            { title: "Emergency sequence", left: true },
            { title: "Riser margin", left: true },
          ]}
          bad={(r) => found.across[r]!.cut === "not cut"}
          rows={found.across.map((row) => [
            units.words(row.section),
            units.words(row.what),
            row.hang_off === "" ? "–" : row.hang_off,
            row.by === "" ? row.cut : `${row.cut}: ${row.by}`,
            row.margin_held === null ? "unknown" : MARGIN[`${row.margin_held}`],
          ])}
        />
      </Titled>
      <p className="mt-1 text-[12px] text-mute">No shear ram cuts tool joints or collars.</p>
    </section>
  );
}

/** What closes each hole in once the riser is off: the mud where its margin is held, else what replaces it. */
function Barriers({ found }: { found: DisconnectResult }) {
  const units = useUnits();
  const { barriers } = found;
  return (
    <section aria-label="Barriers without the riser">
      <Titled title="Barriers without the riser">
        <Facts
          label="Barriers without the riser, section by section"
          heads={[
            { title: "Section to" },
            { title: "When", left: true },
            { title: "Stand", left: true },
            { title: "Not known", left: true },
            { title: "Count" },
            { title: "Asked" },
          ]}
          bad={(r) => barriers[r]!.stands.length < barriers[r]!.needed}
          rows={barriers.map((row) => [
            units.words(row.section),
            row.moment,
            row.stands.join(", ") || "none",
            row.unknown.join(", ") || "–",
            String(row.stands.length),
            String(row.needed),
          ])}
        />
      </Titled>
      <p className="mt-1 text-[12px] text-mute">
        Each counts once it is verified: the rams by their test, the plug by its own, the column by its weight without the riser.
      </p>
      <FieldRow path="/policy/sea/barriers" />
    </section>
  );
}
