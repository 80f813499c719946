// Drills: a kick on this very well rehearsed, its kill sheet, the posted procedures, what is known of pumps, and scores.
import { memo, useState } from "react";
import { useTab } from "../../design/address";
import { Panel } from "../../ui/Panel";
import { Tabs, tabsOf } from "../../ui/Tabs";
import type { BenchProps } from "../registry";
import { TABS } from "../tabs";
import { DebriefView } from "./DebriefView";
import { KillSheetView } from "./KillSheetView";
import { Known } from "./Known";
import { Procedures } from "./Procedures";
import { Rehearse } from "./Rehearse";
import { Scores } from "./Scores";
import { PlayWindow } from "./PlayWindow";

export function DrillsBench({ place }: BenchProps) {
  const [tab, setTab] = useTab("rehearse");
  return <Words tab={tab in TABS.drills ? tab : "rehearse"} onTab={setTab} place={place} />;
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Words = memo(function Words({ tab, onTab, place }: { tab: string; onTab: (tab: string) => void; place: string }) {
  const [playing, setPlaying] = useState<number | null>(null);
  const [shown, setShown] = useState<number | null>(null);
  if (shown !== null) {
    return (
      <Panel title="Debrief">
        <DebriefView drill={shown} onClose={() => setShown(null)} />
      </Panel>
    );
  }
  const contents = {
    rehearse: <Rehearse onPlay={setPlaying} />,
    sheet: <KillSheetView />,
    procedures: <Procedures />,
    known: <Known key={place} />,
    scores: <Scores onPlay={setPlaying} onShow={setShown} />,
  };
  return (
    <Panel title="Drills">
      <Tabs label="Drills" value={tab} onChange={onTab} tabs={tabsOf(TABS.drills, contents)} />
      {playing !== null && (
        <PlayWindow
          key={playing}
          drill={playing}
          onLeave={() => setPlaying(null)}
          onEnded={() => {
            setShown(playing);
            setPlaying(null);
          }}
        />
      )}
    </Panel>
  );
});
