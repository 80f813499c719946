// The wellhead: the stack-up to scale at any moment of the well, and beside it its pieces, heights, bores, loads and tests.
import { useState } from "react";
import { useTab } from "../../design/address";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import { useReference } from "../../design/reference";
import type { StackItem, WellheadResult } from "../../design/types";
import { MomentPicker } from "../../stackup/MomentPicker";
import { StackUp } from "../../stackup/StackUp";
import { FieldRow } from "../../ui/DocField";
import { Empty, Panel, Scroll } from "../../ui/Panel";
import { SavePicture } from "../../ui/SavePicture";
import { Tabs, tabsOf } from "../../ui/Tabs";
import type { Units } from "../../ui/units";
import { useUnits } from "../../ui/units";
import { TABS } from "../tabs";
import { Bores } from "./Bores";
import { Heights } from "./Heights";
import { Loads } from "./Loads";
import { Pieces, TypedPieces } from "./Pieces";
import { Proofs } from "./Proofs";
import { SeaHead } from "./SeaHead";

export function WellheadBench() {
  const head = useEvaluated((e) => e.wellhead);
  const moments = useEvaluated((e) => e.preventers.moments) ?? [];
  const typed = useDocument((d) => d.wellhead.pieces.length > 0);
  const fields = useReference().keys("/wellhead");
  if (head?.sea != null) return <SeaHead head={head.sea} />;
  if (head === undefined || head.pieces.length === 0)
    return (
      <Panel title="Wellhead">
        <Scroll label="Wellhead">
          {typed ? (
            <>
              <Empty>What follows is worked once the entry named at the right is mended.</Empty>
              <TypedPieces />
            </>
          ) : (
            <Empty>No wellhead follows yet: it needs strings, sizes and pressures.</Empty>
          )}
          <FieldRow path="/site/cellar_depth_ft" />
          {fields
            .filter((key) => key !== "pieces")
            .map((key) => (
              <FieldRow key={key} path={`/wellhead/${key}`} />
            ))}
        </Scroll>
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
  const [face, setFace] = useState<string | null>(null);
  const units = useUnits();
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
        onFace={(item) => {
          setFace(item.title);
        }}
        toRotary={toRotary}
        label={`Stack-up above the ${head.datum}, to scale`}
      />
      <p role="status" className="w-[300px] shrink-0 py-1 text-[12.5px]">
        {faceWords(head, face, units) ?? <span className="text-mute">Choose a piece to work on it, a face for what must stand there.</span>}
      </p>
    </div>
  );
}

/** What stands on a face: flange, ring and studs, and the greatest pressure that reaches it. */
function faceWords(head: WellheadResult, name: string | null, units: Units): string | null {
  const piece = head.pieces.find((p) => p.name === name);
  if (piece === undefined) return null;
  const title = piece.name.charAt(0).toUpperCase() + piece.name.slice(1);
  const face = piece.flange === null ? "its top face is none of API 6A" : `${piece.flange} with ${piece.studs}`;
  const stage = piece.stages.find((s) => s.psi !== null && s.psi === piece.needed_psi)?.stage;
  const sees =
    piece.needed_psi === null
      ? "what it sees is unknown"
      : `it sees ${units.text(piece.needed_psi, "pressure")}${stage === undefined ? "" : ` (${stage})`}`;
  return `${title}: ${face}, ${units.text(piece.top_psi, "pressure")}; ${sees}.`;
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
      <Tabs label="Wellhead" value={tab in contents ? tab : "pieces"} onChange={setTab} tabs={tabsOf(TABS.wellhead, contents)} />
    </div>
  );
}
