// What a well at sea adds: the conductor in its soil, the riser, the disconnect, sealed annuli.
import { useTab } from "../../design/address";
import { useDocument, useEvaluated } from "../../design/context";
import { Empty, Panel, Scroll } from "../../ui/Panel";
import { SavePicture } from "../../ui/SavePicture";
import { Tabs, tabsOf } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { Annuli } from "./Annuli";
import { Conductor } from "./Conductor";
import { Disconnect } from "./Disconnect";
import { Landing } from "./Landing";
import { Riser } from "./Riser";

export function SeaBench() {
  const [tab, setTab] = useTab("conductor");
  const setting = useDocument((d) => d.site.setting);
  const sea = useEvaluated((e) => e.sea);
  const contents = {
    conductor: <Conductor found={sea?.conductor ?? null} />,
    ...(setting === "subsea" && {
      landing: <Landing />,
      riser: <Riser found={sea?.riser ?? null} />,
      disconnect: <Disconnect found={sea?.disconnect ?? null} />,
      annuli: <Annuli rows={sea?.annuli ?? []} />,
    }),
  };
  if (setting === "land")
    return (
      <Panel title="At sea">
        <Empty>This well stands on land. Choose its setting under Ground, Site.</Empty>
      </Panel>
    );
  return (
    <Panel title="At sea" actions={<SavePicture title="At sea" />}>
      <Tabs
        label="At sea"
        value={tab in contents ? tab : "conductor"}
        onChange={setTab}
        tabs={tabsOf(TABS.sea, contents).map((t) => ({ ...t, content: <Scroll label={t.title}>{t.content}</Scroll> }))}
      />
    </Panel>
  );
}
