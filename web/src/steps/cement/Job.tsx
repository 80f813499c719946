// The job followed in time: a slider over its moments, what the pump and the rock see, and what happens when.
import { useEffect, useState } from "react";
import { useBench } from "../../design/context";
import { useAtRig } from "../../design/level";
import { useReference } from "../../design/reference";
import type { CementRow, JobDetail, JobStage, StageRow } from "../../design/types";
import { Outcome, type OutcomeProps } from "../../ui/Outcome";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { FluidSwatch } from "./fluidLook";
import { JobCharts } from "./JobCharts";
import { stageTitle } from "./stages";
import { momentShare, setMoment, shareOf, useMoment } from "./moment";

interface JobProps {
  job: JobDetail | undefined;
  row: CementRow;
  stage: number;
  onStage: (stage: number) => void;
}

export function Job({ job, row, stage, onStage }: JobProps) {
  if (job === undefined) return <Empty>Following the job…</Empty>;
  if (job.missing !== null) return <Missing words={job.missing} place={job.place ?? ""} />;
  const k = Math.min(stage, job.stages.length - 1);
  const shown = job.stages[k];
  const told = row.stages[k];
  if (shown === undefined) return <Empty>No job to follow.</Empty>;
  return (
    <div className="grid grid-cols-1 gap-y-2">
      {job.stages.length > 1 && (
        <div role="group" aria-label="Stage" className="flex gap-1">
          {job.stages.map((s, i) => (
            <button
              key={s.number}
              type="button"
              aria-pressed={i === k}
              className={`rounded border px-2 py-0.5 text-[12.5px] ${i === k ? "border-petrol bg-petrol/10 font-semibold text-petrol" : "border-rule hover:border-petrol"}`}
              onClick={() => {
                onStage(i);
              }}
            >
              {stageTitle(s.number)}
            </button>
          ))}
        </div>
      )}
      <Scrubber stage={shown} />
      <JobCharts stage={shown} />
      <Key stage={shown} />
      <Events stage={shown} />
      {told && <Outcomes told={told} />}
      {k === job.stages.length - 1 && row.reversing && <ReversingOut row={row.reversing} />}
      <p className="text-[11.5px] text-mute">
        A planning calculation: fluids push one another without mixing, pipe stands in the middle of the hole, nothing is compressed. Have
        it checked by a competent engineer; local rules prevail.
      </p>
    </div>
  );
}

/** Why there is no job to follow, and the way to what is wanting. */
function Missing({ words, place }: { words: string; place: string }) {
  const { goTo } = useBench();
  const reference = useReference();
  const step = reference.stepOf(place);
  return (
    <Empty>
      {words}{" "}
      <button
        type="button"
        className="text-petrol underline"
        onClick={() => {
          goTo(step, place);
        }}
      >
        Go to {reference.title(step)}
      </button>
    </Empty>
  );
}

const PLAY_MS = 14_000;

function Scrubber({ stage }: { stage: JobStage }) {
  const units = useUnits();
  const moment = useMoment(stage);
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return;
    let last = performance.now();
    let frame = requestAnimationFrame(function step(now: number) {
      setMoment(momentShare() + (now - last) / PLAY_MS);
      last = now;
      if (momentShare() >= 1) setPlaying(false);
      else frame = requestAnimationFrame(step);
    });
    return () => {
      cancelAnimationFrame(frame);
    };
  }, [playing]);
  const pumped = units.text(stage.pumped_bbl[moment]!, "volume");
  const minutes = `${stage.minutes[moment]!.toFixed(0)} min`;
  return (
    <div className="sticky top-0 z-10 grid grid-cols-[auto_1fr] items-center gap-x-2 gap-y-1 bg-paper pb-1">
      <button
        type="button"
        className="h-6 w-14 rounded border border-rule text-[12px] hover:border-petrol"
        onClick={() => {
          if (!playing && momentShare() >= 1) setMoment(0);
          setPlaying(!playing);
        }}
      >
        {playing ? "Pause" : "Play"}
      </button>
      <output className="text-right font-narrow text-[13px] font-semibold tabular-nums">
        {pumped} · {minutes}
      </output>
      <input
        type="range"
        aria-label="Moment of the job"
        aria-valuetext={`${pumped} pumped, ${minutes}`}
        min={0}
        max={stage.minutes.length - 1}
        step={1}
        value={moment}
        className="col-span-2 w-full accent-petrol"
        onChange={(event) => {
          setPlaying(false);
          setMoment(shareOf(stage, Number(event.target.value)));
        }}
      />
    </div>
  );
}

/** The fluids in the order pumped, with how they are drawn. */
function Key({ stage }: { stage: JobStage }) {
  const units = useUnits();
  return (
    <ul className="flex flex-wrap gap-x-3 gap-y-0.5 text-[12px] text-mute" aria-label="Fluids">
      {stage.fluids.map((fluid, k) => (
        <li key={k} className="inline-flex items-center gap-1 whitespace-nowrap">
          <FluidSwatch prefix={`swatch${k}`} kind={fluid.kind} />
          {fluid.name} {units.text(fluid.density_ppg, "emw")}
        </li>
      ))}
    </ul>
  );
}

function Events({ stage }: { stage: JobStage }) {
  const units = useUnits();
  const moment = useMoment(stage);
  return (
    <section aria-label="What happens">
      <h3 className="mb-0.5 text-[13px] font-semibold">What happens</h3>
      <ol className="text-[12.5px]">
        {stage.events.map((event, k) => (
          <li key={k}>
            <button
              type="button"
              className={`grid w-full grid-cols-[4.5rem_1fr] gap-x-2 border-b border-rule/60 py-0.5 text-left hover:bg-petrol/5 ${event.moment <= moment ? "" : "text-mute"}`}
              onClick={() => {
                setMoment(shareOf(stage, event.moment));
              }}
            >
              <span className="text-right tabular-nums">{units.text(stage.pumped_bbl[event.moment]!, "volume")}</span>
              <span>{units.words(event.words)}</span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

function Outcomes({ told }: { told: StageRow }) {
  const units = useUnits();
  const atRig = useAtRig();
  const after = (bbl: number | null) => (bbl === null ? undefined : `after ${units.text(bbl, "volume")}`);
  return (
    <section aria-label="The job in numbers">
      <h3 className="mb-0.5 text-[13px] font-semibold">The job in numbers</h3>
      <Line label="Time of the job" value={told.minutes} quantity="minutes" />
      <Line label="Pumped until the plug bumps" value={told.bump_bbl} quantity="volume" />
      <Line
        label="Displacement, as measured at surface"
        value={told.displacement_bbl}
        quantity="volume"
        working={`stage${told.number}/displacement`}
      />
      <Line
        label="Returns expected"
        value={told.returns_bbl}
        quantity="volume"
        note={told.cement_back_bbl > 0.05 ? `${units.text(told.cement_back_bbl, "volume")} of it cement` : "no cement"}
      />
      <Line label="Greatest pump pressure" value={told.greatest_pump_psi} quantity="pressure" working={`stage${told.number}/pump`} />
      <Line label="Final pump pressure" value={told.final_pump_psi} quantity="pressure" working={`stage${told.number}/final`} />
      <Line label={`Plug bumped at${atRig}`} value={told.bumped_psi} quantity="pressure" working={`stage${told.number}/bumped`} />
      {told.test_psi !== null && <Line label={`Casing test on green cement${atRig}`} value={told.test_psi} quantity="pressure" />}
      {told.bottom_plug_bbl !== null && (
        <Line
          label="Bottom plug ruptures at the pump"
          value={told.bottom_plug_psi}
          quantity="pressure"
          note={after(told.bottom_plug_bbl)}
        />
      )}
      {told.dart_bbl !== null && (
        <Line label="Dart releases the plug at the pump" value={told.dart_psi} quantity="pressure" note={after(told.dart_bbl)} />
      )}
      <Line label="Greatest return rate" value={told.greatest_return_bpm} quantity="pump_rate" />
      <Line label="Free fall, level down to" value={told.fall_level_md_ft} quantity="depth" note={told.fall_bbl < 1 ? "none" : undefined} />
      <Line
        label="Nearest to fracture"
        value={told.greatest_emw_ppg}
        quantity="emw"
        working={`stage${told.number}/greatest`}
        note={
          told.greatest_md_ft === null
            ? undefined
            : `at ${units.text(told.greatest_md_ft, "depth")}, breaks at ${units.text(told.fracture_ppg, "emw")}`
        }
        bad={(told.greatest_emw_ppg ?? 0) > (told.fracture_ppg ?? Infinity)}
      />
      <Line
        label="Nearest to pore pressure"
        value={told.least_emw_ppg}
        quantity="emw"
        working={`stage${told.number}/least`}
        note={
          told.least_md_ft === null ? undefined : `at ${units.text(told.least_md_ft, "depth")}, holds ${units.text(told.pore_ppg, "emw")}`
        }
        bad={(told.least_emw_ppg ?? Infinity) < (told.pore_ppg ?? 0)}
      />
      <Line label="Least collapse factor" value={told.collapse_factor} quantity="factor" />
      <Line label="Least burst factor" value={told.burst_factor} quantity="factor" />
      {told.number === 1 && <Line label="Float holds, once bled back" value={told.float_psi} quantity="pressure" />}
      {told.number === 1 && (
        <Line
          label="Weight of the string once bled off"
          value={told.hanging_lbf}
          quantity="force"
          working={`stage${told.number}/hanging`}
          bad={told.hanging_lbf < 0}
        />
      )}
    </section>
  );
}

/** What stands over a liner's top, on its way back up the drill pipe. */
function ReversingOut({ row }: { row: NonNullable<CementRow["reversing"]> }) {
  const units = useUnits();
  return (
    <section aria-label="Reversing out">
      <h3 className="mb-0.5 text-[13px] font-semibold">Reversing out over the liner top</h3>
      <Line label="Cement over the liner top" value={row.over_bbl} quantity="volume" note={units.text(row.over_ft, "depth")} />
      <Line
        label="Reversed until the last of it is back"
        value={row.volume_bbl}
        quantity="volume"
        note={`at ${units.text(row.rate_bpm, "pump_rate")}`}
      />
      <Line label="Greatest pressure reversing" value={row.pump_psi} quantity="pressure" working="reversing" />
      <Line
        label="Open hole then bears"
        value={row.reached_ppg}
        quantity="emw"
        note={row.md_ft === null ? undefined : `at ${units.text(row.md_ft, "depth")}, breaks at ${units.text(row.fracture_ppg, "emw")}`}
        bad={(row.reached_ppg ?? 0) > (row.fracture_ppg ?? Infinity)}
      />
      <p className="text-[11.5px] text-mute">
        Bump the plug, release and pick the setting tool up out of the liner; then down the annulus, before the cement gels.
      </p>
    </section>
  );
}

/** A result of the string in hand; a pressure or weight that is not there, 0 or less, has no working. */
function Line({ working, ...result }: OutcomeProps) {
  const { selected } = useBench();
  const opens = working !== undefined && (result.value ?? 0) > 0;
  return <Outcome {...result} working={opens ? `cement/${selected}/${working}` : undefined} />;
}
