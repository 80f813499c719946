// The wellhead: the stack-up to scale at any moment of the well, and beside it its pieces, heights, bores, loads and tests.
import { useState } from "react";
import { useTab } from "../../design/address";
import { useBench, useEvaluated } from "../../design/context";
import type { StackItem, WellheadResult } from "../../design/types";
import { MomentPicker } from "../../stackup/MomentPicker";
import { StackUp } from "../../stackup/StackUp";
import { Empty, Panel } from "../../ui/Panel";
import { SavePicture } from "../../ui/SavePicture";
import { Tabs } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { Bores } from "./Bores";
import { Heights } from "./Heights";
import { Loads } from "./Loads";
import { Pieces } from "./Pieces";
import { Proofs } from "./Proofs";

export function WellheadBench() {
  const head = useEvaluated((e) => e.wellhead);
  const moments = useEvaluated((e) => e.preventers.moments) ?? [];
  if (head === undefined || head.pieces.length === 0)
    return (
      <Panel title="Wellhead">
        <Empty>
          {head !== undefined && !head.applies
            ? "Wellheads are worked on land and on platforms; for this setting type the pieces in the well file."
            : "No wellhead follows yet: it needs strings, sizes and pressures."}
        </Empty>
      </Panel>
    );
  return (
    <Panel title="Wellhead" actions={moments.length > 0 ? <SavePicture title="Stack-up" /> : undefined}>
      <div className="flex min-h-0 flex-1 gap-3 stacked:flex-col">
        {moments.length > 0 && <Drawing head={head} />}
        <Words head={head} />
      </div>
    </Panel>
  );
}

function Drawing({ head }: { head: WellheadResult }) {
  const { goTo } = useBench();
  const moments = useEvaluated((e) => e.preventers.moments) ?? [];
  const [, setTab] = useTab("pieces");
  const [picked, setPicked] = useState<number | null>(null);
  const [toRotary, setRotary] = useState(false);
  const [lit, setLit] = useState<number | null>(null);
  const shown = Math.min(picked ?? moments.length - 1, moments.length - 1);
  const onPick = (item: StackItem, index: number) => {
    setLit(index);
    if (item.step === "preventers") goTo("preventers", item.place);
    else if (item.kind === "base plate" || item.working === "wellhead/cut_off") setTab("heights");
    else if (head.decided) goTo("wellhead", `${item.place}/height_in`);
    else setTab("pieces");
  };
  return (
    <div className="flex min-h-0 flex-col">
      <MomentPicker
        moments={moments}
        shown={shown}
        onShow={(index) => {
          setPicked(index);
          setLit(null);
        }}
        toRotary={toRotary}
        onRotary={setRotary}
      />
      <StackUp
        moment={moments[shown]!}
        lit={lit}
        onPick={onPick}
        toRotary={toRotary}
        label={`Stack-up above the ${head.datum}, to scale`}
      />
    </div>
  );
}

function Words({ head }: { head: WellheadResult }) {
  const [tab, setTab] = useTab("pieces");
  const contents = {
    pieces: <Pieces head={head} />,
    heights: <Heights head={head} />,
    bores: <Bores head={head} />,
    loads: <Loads head={head} />,
    tests: <Proofs head={head} />,
  };
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <Tabs
        label="Wellhead"
        value={tab in contents ? tab : "pieces"}
        onChange={setTab}
        tabs={Object.entries(contents).map(([value, content]) => ({
          value,
          title: TABS.wellhead[value as keyof typeof TABS.wellhead],
          content,
        }))}
      />
    </div>
  );
}
