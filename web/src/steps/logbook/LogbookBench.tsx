// The logbook: what happened entry by entry, what it shows, what is still free, the rig live, and the plan beside the well as drilled.
import { memo } from "react";
import { useTab } from "../../design/address";
import { Panel } from "../../ui/Panel";
import { SavePicture } from "../../ui/SavePicture";
import { Tabs, tabsOf } from "../../ui/Tabs";
import type { BenchProps } from "../registry";
import { TABS } from "../tabs";
import { Compare } from "./Compare";
import { DaysTrack } from "./DaysTrack";
import { LeakOff } from "./LeakOff";
import { Live } from "./Live";
import { LiveTrack } from "./LiveTrack";
import { Log } from "./Log";
import { Today } from "./Today";

const TRACK_SHARE = 0.62;

export function LogbookBench({ scale, tracksPx, place }: BenchProps) {
  const [tab, setTab] = useTab("log");
  const shown = tab in TABS.logbook ? tab : "log";
  const days = shown === "today" || shown === "compare";
  return (
    <>
      {days && <DaysTrack scale={scale} widthPx={Math.floor(tracksPx * TRACK_SHARE)} />}
      {shown === "live" && <LiveTrack scale={scale} widthPx={Math.floor(tracksPx * TRACK_SHARE)} />}
      <Words tab={shown} onTab={setTab} place={place} />
    </>
  );
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Words = memo(function Words({ tab, onTab, place }: { tab: string; onTab: (tab: string) => void; place: string }) {
  const contents = {
    log: <Log place={place} />,
    tests: <LeakOff />,
    today: <Today />,
    live: <Live />,
    compare: <Compare />,
  };
  return (
    <Panel title="Logbook" actions={tab === "tests" || tab === "live" ? <SavePicture title="Logbook" /> : undefined}>
      <Tabs label="Logbook" value={tab} onChange={onTab} tabs={tabsOf(TABS.logbook, contents)} />
    </Panel>
  );
});
