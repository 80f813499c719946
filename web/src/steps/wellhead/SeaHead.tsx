// The wellhead on the sea floor: the housing to scale with what is stacked in its bore, its seats and seals, what passes.
import { useState } from "react";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import { useReference } from "../../design/reference";
import type { StackItem, SubseaHead } from "../../design/types";
import { MomentPicker } from "../../stackup/MomentPicker";
import { StackUp } from "../../stackup/StackUp";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Panel, Scroll } from "../../ui/Panel";
import { SavePicture } from "../../ui/SavePicture";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

export function SeaHead({ head }: { head: SubseaHead }) {
  const moments = useEvaluated((e) => e.preventers.moments) ?? [];
  return (
    <Panel title="Wellhead on the sea floor" actions={moments.length > 0 ? <SavePicture title="Stack-up" /> : undefined}>
      <div className="flex min-h-0 flex-1 gap-3 stacked:flex-col">
        {moments.length > 0 && <Drawing />}
        <Scroll label="Wellhead on the sea floor">
          <div className="grid grid-cols-1 gap-y-4">
            <Seats head={head} />
            <Passing head={head} />
            <Fields head={head} />
          </div>
        </Scroll>
      </div>
    </Panel>
  );
}

function Drawing() {
  const { goTo } = useBench();
  const moments = useEvaluated((e) => e.preventers.moments) ?? [];
  const [picked, setPicked] = useState<number | null>(null);
  const [lit, setLit] = useState<number | null>(null);
  const shown = Math.min(picked ?? moments.length - 1, moments.length - 1);
  const onPick = (item: StackItem, index: number) => {
    setLit(index);
    goTo(item.step === "preventers" ? "preventers" : item.place.startsWith("/sea/riser") ? "sea" : "wellhead", item.place);
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
      />
      <StackUp moment={moments[shown]!} lit={lit} onPick={onPick} toRotary={false} label="Wellhead and stack over the mudline, to scale" />
    </div>
  );
}

function Seats({ head }: { head: SubseaHead }) {
  const units = useUnits();
  const strings = useEvaluated((e) => e.strings) ?? [];
  const carrier = strings[head.carrier];
  const rows = [...head.seats].reverse();
  return (
    <section aria-label="Hangers and seals">
      <Titled
        title="Hangers and seals, from the top"
        note={
          carrier === undefined ? undefined : `the housing is run on the ${units.text(carrier.od_in, "size")}; heights over the mudline`
        }
      >
        <Facts
          label="Hangers and seal assemblies"
          heads={[
            { title: "Hanger" },
            { title: "Seat", unit: units.unit("height") },
            { title: "Seal to", unit: units.unit("height") },
            { title: "Load", unit: units.unit("force") },
            { title: "Sees", unit: units.unit("pressure") },
            { title: "Seal test", unit: units.unit("pressure") },
            { title: "Seal lost, left", left: true },
          ]}
          bad={(r) => rows[r]!.seat_in === null}
          rows={rows.map((row) => [
            units.words(row.what),
            row.seat_in === null ? "no seat" : units.number(row.seat_in, "height"),
            units.number(row.top_in, "height"),
            <Headline key="l" working={`wellhead/hung/${row.string}`} title="load on the hanger">
              {units.number(row.load_lbf, "force")}
            </Headline>,
            <Headline key="p" working={`wellhead/${row.string}/surface_pressure`} title="pressure at the wellhead">
              {row.needed_psi === null ? "unknown" : units.number(row.needed_psi, "pressure")}
            </Headline>,
            <Headline key="t" working={row.working} title="test of the seal assembly">
              {row.test_psi === null ? "unknown" : units.number(row.test_psi, "pressure")}
            </Headline>,
            row.left,
          ])}
        />
      </Titled>
      <p className="mt-1 text-[12px] text-mute">Pressures are those at the wellhead on the sea floor, over the atmosphere.</p>
    </section>
  );
}

function Passing({ head }: { head: SubseaHead }) {
  const units = useUnits();
  return (
    <section aria-label="What passes">
      <Titled title="What passes">
        <Facts
          label="What passes in the housing"
          heads={[
            { title: "What" },
            { title: "OD", unit: units.unit("size") },
            { title: "Through", left: true },
            { title: "Bore", unit: units.unit("size") },
          ]}
          bad={(r) => !head.passing[r]!.passes}
          rows={head.passing.map((row) => [
            units.words(row.what),
            units.number(row.od_in, "size"),
            row.through,
            units.number(row.bore_in, "size"),
          ])}
        />
      </Titled>
    </section>
  );
}

function Fields({ head }: { head: SubseaHead }) {
  const keys = useReference().keys("/sea/housing");
  const policy = useDocument((d) => d.policy.sea);
  const proposed: Record<string, number | null | undefined> = {
    class_psi: head.class_psi,
    protector_in: policy?.protector_in,
    seat_lbf: policy?.seat_lbf,
  };
  return (
    <section aria-label="Housing">
      <Titled title="Housing">
        <FieldRow path="/sea/conductor/stick_up_ft" />
        {keys.map((key) => (
          <FieldRow key={key} path={`/sea/housing/${key}`} proposed={proposed[key]} />
        ))}
      </Titled>
    </section>
  );
}
