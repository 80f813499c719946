// Cementing: the slurries and their tops, what is pumped in which order and how fast, and the job followed in time.
import { memo, useEffect, useState } from "react";
import { useTab } from "../../design/address";
import { getCementJob } from "../../design/api";
import { useBench, useEvaluated, useSnapshot } from "../../design/context";
import type { JobDetail } from "../../design/types";
import { useStringDetail } from "../../design/useStringDetail";
import type { DepthScale } from "../../depth/scale";
import { Empty, Panel } from "../../ui/Panel";
import { StringPicker } from "../../ui/StringPicker";
import { Tabs, tabsOf } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { Blend } from "./Blend";
import { Fluids } from "./Fluids";
import { FluidTrack } from "./FluidTrack";
import { Hole, HoleTrack } from "./Hole";
import { Job } from "./Job";
import { Placement } from "./Placement";
import { Plugs, PlugTrack } from "./Plugs";
import { RockTrack } from "./RockTrack";
import { setShownJob } from "./shownJob";
import { Slurries } from "./Slurries";

export function CementBench({ scale, tracksPx }: { scale: DepthScale; tracksPx: number }) {
  const { selected, select } = useBench();
  const rows = useEvaluated((e) => e.cement.strings);
  const [tab, setTab] = useTab("slurries");
  const [stage, setStage] = useState(0);
  const row = rows?.[selected];
  const job = useStringDetail<JobDetail>("cement job", selected, tab === "job", row?.applies === true ? row : undefined, getCementJob);
  const first = rows?.findIndex((r) => r.applies) ?? -1;
  useEffect(() => {
    // a driven string is not cemented: the first that is takes its place
    if (tab !== "slurries" && tab !== "plugs" && row?.applies !== true && first >= 0) select(first);
  }, [tab, row, first, select]);
  const shown = job?.stages[Math.min(stage, job.stages.length - 1)];
  useEffect(() => {
    setShownJob(tab === "job" && shown !== undefined ? { string: selected, stage: shown } : null);
  }, [tab, shown, selected]);
  useEffect(
    () => () => {
      setShownJob(null);
    },
    [],
  );
  const half = Math.floor(tracksPx / 2);
  return (
    <>
      {tab === "plugs" && <PlugTrack scale={scale} widthPx={half} />}
      {tab === "hole" && <HoleTrack scale={scale} widthPx={half} />}
      {tab === "job" && (
        <>
          <FluidTrack scale={scale} widthPx={half} stage={shown} />
          <RockTrack scale={scale} widthPx={tracksPx - half} stage={shown} />
        </>
      )}
      <Words job={job} stage={stage} onStage={setStage} selected={selected} tab={tab} onTab={setTab} />
    </>
  );
}

interface WordsProps {
  job: JobDetail | undefined;
  stage: number;
  onStage: (stage: number) => void;
  selected: number;
  tab: string;
  onTab: (tab: string) => void;
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Words = memo(function Words({ job, stage, onStage, selected, tab, onTab }: WordsProps) {
  const evaluation = useSnapshot("evaluation");
  const rows = evaluation?.cement.strings;
  const row = rows?.[selected];
  if (!evaluation || !rows?.some((r) => r.applies))
    return (
      <Panel title="Cement">
        <Empty>No cemented string yet.</Empty>
      </Panel>
    );
  const contents = {
    slurries: <Slurries evaluation={evaluation} />,
    hole: row && <Hole key={selected} row={row} />,
    blend: row && <Blend key={selected} row={row} />,
    fluids: row && <Fluids key={selected} row={row} />,
    job: row && <Job job={job} row={row} stage={stage} onStage={onStage} />,
    placement: row && <Placement key={selected} row={row} />,
    plugs: <Plugs rows={evaluation.cement.plugs} />,
  };
  return (
    <Panel title="Cement">
      {tab !== "slurries" && tab !== "plugs" && <StringPicker rows={rows} />}
      <Tabs label="Cement" value={tab} onChange={onTab} tabs={tabsOf(TABS.cement, contents)} />
    </Panel>
  );
});
