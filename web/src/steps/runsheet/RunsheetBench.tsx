// The run sheet: every step in order with the well's own numbers, a step at a time for the rig floor, its days, its materials.
import { memo } from "react";
import { useTab } from "../../design/address";
import { useEvaluated } from "../../design/context";
import type { DepthScale } from "../../depth/scale";
import { Empty, Panel } from "../../ui/Panel";
import { SavePicture } from "../../ui/SavePicture";
import { Tabs, tabsOf } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { Floor } from "./Floor";
import { Materials } from "./Materials";
import { Schedule } from "./Schedule";
import { ScheduleTrack } from "./ScheduleTrack";
import { Sheet } from "./Sheet";

interface Props {
  scale: DepthScale;
  tracksPx: number;
  place: string;
}

const TRACK_SHARE = 0.75;

export function RunsheetBench({ scale, tracksPx, place }: Props) {
  const [tab, setTab] = useTab("sheet");
  const shown = tab in TABS.runsheet ? tab : "sheet";
  return (
    <>
      {shown === "schedule" && <ScheduleTrack scale={scale} widthPx={Math.floor(tracksPx * TRACK_SHARE)} />}
      <Words tab={shown} onTab={setTab} place={place} />
    </>
  );
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Words = memo(function Words({ tab, onTab, place }: { tab: string; onTab: (tab: string) => void; place: string }) {
  const steps = useEvaluated((e) => e.runsheet.steps) ?? 0;
  if (steps === 0)
    return (
      <Panel title="Run sheet">
        <Empty>No step follows yet: the sheet is made from the strings, once there are setting depths.</Empty>
      </Panel>
    );
  const contents = {
    sheet: <Sheet place={place} />,
    floor: <Floor />,
    schedule: <Schedule />,
    materials: <Materials />,
  };
  return (
    <Panel title="Run sheet" actions={tab === "schedule" ? <SavePicture title="Schedule" /> : undefined}>
      <Tabs label="Run sheet" value={tab} onChange={onTab} tabs={tabsOf(TABS.runsheet, contents)} />
    </Panel>
  );
});
