// Heights: what sets the stack-up over the cellar floor or the deck, where each string is cut, and where its hanger lands.
import { useDocument, useEvaluated } from "../../design/context";
import type { WellheadResult } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Outcome } from "../../ui/Outcome";
import { useUnits } from "../../ui/units";

export function Heights({ head }: { head: WellheadResult }) {
  const onLand = useDocument((d) => d.site.setting) === "land";
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <section aria-label="What sets the heights">
        {onLand ? <FieldRow path="/site/cellar_depth_ft" /> : <FieldRow path="/wellhead/deck_md_ft" />}
        <FieldRow path="/wellhead/mounting" />
        <FieldRow path="/wellhead/socket_depth_in" />
        <FieldRow path="/wellhead/base_plate_in" />
        <FieldRow path="/wellhead/reference_in" proposed={head.reference_above_in} />
        {head.cellar_needed_ft !== null && (
          <Outcome label="Cellar depth that would do" value={head.cellar_needed_ft} quantity="length" working="wellhead/cut_off" />
        )}
      </section>
      <Cuts head={head} />
      <Landings head={head} />
    </div>
  );
}

function useName(): (index: number) => string {
  const strings = useEvaluated((e) => e.strings) ?? [];
  const units = useUnits();
  return (index) => {
    const string = strings[index];
    return string === undefined ? "" : `${string.od_in === null ? "" : units.text(string.od_in, "size")} ${string.role}`;
  };
}

function Cuts({ head }: { head: WellheadResult }) {
  const units = useUnits();
  const name = useName();
  const unit = units.unit("height");
  return (
    <section aria-label="Cuts">
      <h3 className="mb-0.5 text-[13px] font-semibold">Cuts, above the {head.datum}</h3>
      <Facts
        label="Cuts"
        heads={[{ title: "String" }, { title: "Rough", unit }, { title: "Final", unit }, { title: "Above its flange", unit }]}
        bad={(r) => head.cuts[r]!.final_in < 0}
        rows={head.cuts.map((cut) => [
          <span key="n">
            {name(cut.string)}
            <span className="block text-[11.5px] text-mute">{cut.when}</span>
          </span>,
          <Headline key="r" working={`wellhead/rough/${cut.string}`} title={`rough cut of ${name(cut.string)}`}>
            {units.number(cut.rough_in, "height")}
          </Headline>,
          <Headline key="f" working={cut.working} title={`cut of ${name(cut.string)}`}>
            {units.number(cut.final_in, "height")}
          </Headline>,
          cut.above_flange_in === null ? "–" : units.number(cut.above_flange_in, "height"),
        ])}
      />
    </section>
  );
}

function Landings({ head }: { head: WellheadResult }) {
  const units = useUnits();
  const name = useName();
  if (head.hung.length === 0) return null;
  return (
    <section aria-label="Hangers">
      <h3 className="mb-0.5 text-[13px] font-semibold">Hangers in their bowls</h3>
      <Facts
        label="Hangers"
        heads={[
          { title: "String" },
          { title: "Hanger", left: true },
          { title: "Shoulder", unit: units.unit("height") },
          { title: "From rotary", unit: units.unit("length") },
        ]}
        rows={head.hung.map((row) => [
          name(row.string),
          row.hanger,
          units.number(row.shoulder_in, "height"),
          row.landing_md_ft === null ? (
            "unknown"
          ) : (
            <Headline key="l" working={`wellhead/landing/${row.string}`} title={`landing depth of ${name(row.string)}`}>
              {units.number(row.landing_md_ft, "length")}
            </Headline>
          ),
        ])}
      />
      <p className="mt-1 text-[12px] text-mute">
        From the rotary down to the shoulder: the space-out of a mandrel hanger. Slips take the casing anywhere in their bowl.
      </p>
    </section>
  );
}
