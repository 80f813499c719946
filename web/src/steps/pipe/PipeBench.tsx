// Pipe: each string's sections, every load with its ratings against depth, and what pipe there is to choose from.
import { memo, useState } from "react";
import { useTab } from "../../design/address";
import { useBench, useSnapshot } from "../../design/context";
import type { LoadsResult } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { Empty, Panel } from "../../ui/Panel";
import { Tabs } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { CatalogueTable } from "./CatalogueTable";
import { AxialLoads, PressureLoads } from "./LoadTracks";
import { StringCard } from "./StringCard";
import { OwnPipes, Stock } from "./Supplies";
import { useLoads } from "./useLoads";

export function PipeBench({ scale, tracksPx }: { scale: DepthScale; tracksPx: number }) {
  const { selected } = useBench();
  const loads = useLoads(selected);
  const [taken, setTaken] = useState<{ string: number; name: string } | null>(null);
  const [tab, setTab] = useTab("strings");
  const each = Math.floor(tracksPx / 2);
  const chosen = taken?.string === selected && loads?.cases.some((c) => c.name === taken.name) ? taken.name : null;
  return (
    <>
      <PressureLoads scale={scale} widthPx={each} loads={loads} chosen={chosen} />
      {/* the tables of pipes need its room */}
      {tab === "strings" && <AxialLoads scale={scale} widthPx={each} loads={loads} chosen={chosen} />}
      <Pipes loads={loads} chosen={chosen} selected={selected} setTaken={setTaken} tab={tab} onTab={setTab} />
    </>
  );
}

interface PipesProps {
  loads: LoadsResult | undefined;
  chosen: string | null;
  selected: number;
  setTaken: (taken: { string: number; name: string } | null) => void;
  tab: string;
  onTab: (tab: string) => void;
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Pipes = memo(function Pipes({ loads, chosen, selected, setTaken, tab, onTab }: PipesProps) {
  const evaluation = useSnapshot("evaluation");
  const strings =
    !evaluation || evaluation.strings.length === 0 ? (
      <Empty>No string yet. Pipe is chosen once there are depths, sizes and muds.</Empty>
    ) : (
      <>
        {evaluation.strings.map((_, index) => (
          <StringCard
            key={index}
            index={index}
            loads={index === selected ? loads : undefined}
            chosen={index === selected ? chosen : null}
            onChoose={(name) => {
              setTaken(name === null ? null : { string: index, name });
            }}
          />
        ))}
        <p className="mt-2 text-[12px] text-mute">
          Dashed: pipe rating over the design factor. Click a case to draw it apart. Relative costs, generic connections and weights of
          wellhead and BOPs are planning values: replace them with your own.
        </p>
      </>
    );
  return (
    <Panel title="Pipe">
      <Tabs
        label="Pipe"
        value={tab}
        onChange={onTab}
        tabs={[
          { value: "strings", title: TABS.pipe.strings, content: strings },
          { value: "catalogue", title: TABS.pipe.catalogue, content: <CatalogueTable index={selected} /> },
          { value: "own", title: TABS.pipe.own, content: <OwnPipes /> },
          { value: "stock", title: TABS.pipe.stock, content: <Stock /> },
        ]}
      />
    </Panel>
  );
});
