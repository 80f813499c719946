// Running the casing: tally, float equipment and filling, hook load and speed, centralizers, and the rig floor's list.
import { memo, useEffect } from "react";
import { useTab } from "../../design/address";
import { useBench, useEvaluated } from "../../design/context";
import type { TallyDetail } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { Empty, Panel } from "../../ui/Panel";
import { StringPicker } from "../../ui/StringPicker";
import { Tabs, tabsOf } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { Centralizers } from "./Centralizers";
import { FloatAndFill } from "./FloatAndFill";
import { Moving } from "./Moving";
import { RigFloor } from "./RigFloor";
import { Tally } from "./Tally";
import { FillTrack, HookTrack, SpeedTrack, StandoffTrack } from "./tracks";
import { useTally, useTracks } from "./useDetail";

export function RunningBench({ scale, tracksPx }: { scale: DepthScale; tracksPx: number }) {
  const { selected, select } = useBench();
  const rows = useEvaluated((e) => e.running.strings);
  const [tab, setTab] = useTab("tally");
  const tally = useTally(selected, tab === "tally" || tab === "centralizers" || tab === "floor");
  const tracks = useTracks(selected, tab === "float" || tab === "moving" || tab === "centralizers");
  const first = rows?.findIndex((row) => row.applies) ?? -1;
  const applies = rows?.[selected]?.applies === true;
  useEffect(() => {
    // a driven string is not run: the first that is takes its place
    if (!applies && first >= 0) select(first);
  }, [applies, first, select]);
  const half = Math.floor(tracksPx / 2);
  return (
    <>
      {tab === "float" && <FillTrack scale={scale} widthPx={half} run={tracks} />}
      {tab === "moving" && (
        <>
          <HookTrack scale={scale} widthPx={half} run={tracks} />
          <SpeedTrack scale={scale} widthPx={tracksPx - half} run={tracks} />
        </>
      )}
      {tab === "centralizers" && <StandoffTrack scale={scale} widthPx={half} run={tracks} />}
      <Words tally={tally} selected={selected} tab={tab} onTab={setTab} />
    </>
  );
}

interface WordsProps {
  tally: TallyDetail | undefined;
  selected: number;
  tab: string;
  onTab: (tab: string) => void;
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Words = memo(function Words({ tally, selected, tab, onTab }: WordsProps) {
  const rows = useEvaluated((e) => e.running.strings);
  const row = rows?.[selected];
  if (row?.applies !== true)
    return (
      <Panel title="Running">
        <Empty>No string is run yet: depths, sizes, muds and pipe come first.</Empty>
      </Panel>
    );
  const contents = {
    tally: <Tally run={tally} row={row} />,
    float: <FloatAndFill row={row} />,
    moving: <Moving row={row} />,
    centralizers: <Centralizers run={tally} row={row} />,
    floor: <RigFloor run={tally} row={row} />,
  };
  return (
    <Panel title="Running">
      <StringPicker rows={rows ?? []} />
      <Tabs label="Running" value={tab} onChange={onTab} tabs={tabsOf(TABS.running, contents)} />
    </Panel>
  );
});
