// The completion: what is learnt, what is decided at total depth, the barriers of every state, the well handed over or plugged.
import { useEffect } from "react";
import { useTab } from "../../design/address";
import { useDocument } from "../../design/context";
import { Panel, Scroll } from "../../ui/Panel";
import { SavePicture } from "../../ui/SavePicture";
import { Tabs, tabsOf } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { Barriers } from "./Barriers";
import { Decision } from "./Decision";
import { Evaluation } from "./Evaluation";
import { LeftWell } from "./LeftWell";
import { setShown } from "./shownState";
import { Completed } from "./Completed";

export function CompletionBench() {
  const [tab, setTab] = useTab("decision");
  const decision = useDocument((d) => d.completion.decision);
  const contents = {
    evaluation: <Evaluation />,
    decision: <Decision />,
    barriers: <Barriers />,
    completed: <Completed />,
    suspension: <LeftWell key="suspension" way="suspension" />,
    abandonment: <LeftWell key="abandonment" way="abandonment" />,
  };
  const shown = tab in contents ? tab : "decision";
  useEffect(() => {
    if (shown === "evaluation") setShown({ kind: "evaluation" });
    else if (shown === "completed" || (shown === "decision" && decision === "complete")) setShown({ kind: "tubing" });
    else if (shown === "suspension" || (shown === "decision" && decision === "suspend")) setShown({ kind: "plugs", way: "suspension" });
    else if (shown === "abandonment" || (shown === "decision" && decision === "plug and abandon"))
      setShown({ kind: "plugs", way: "abandonment" });
    else if (shown !== "barriers") setShown(null);
  }, [shown, decision]);
  useEffect(
    () => () => {
      setShown(null);
    },
    [],
  );
  return (
    <Panel title="Completion" actions={<SavePicture title="Completion" />}>
      <Tabs
        label="Completion"
        value={shown}
        onChange={setTab}
        tabs={tabsOf(TABS.completion, contents).map((t) => ({ ...t, content: <Scroll label={t.title}>{t.content}</Scroll> }))}
      />
    </Panel>
  );
}
