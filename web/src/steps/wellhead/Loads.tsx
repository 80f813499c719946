// Loads: on every bowl, on surface casing and conductor, and what growth in production does to them.
import { useDocument, useEvaluated } from "../../design/context";
import type { WellheadResult } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Outcome } from "../../ui/Outcome";
import { useUnits } from "../../ui/units";

export function Loads({ head }: { head: WellheadResult }) {
  const platform = useDocument((d) => d.site.setting) === "platform";
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <section aria-label="Support">
        <FieldRow path="/wellhead/free_conductor_ft" proposed={head.free_conductor_ft} />
        {platform && <FieldRow path="/wellhead/mudline_hangers" />}
        {platform && <FieldRow path="/wellhead/seabed_hanger_ft" />}
        <FieldRow path="/policy/wellhead/stands_on" />
      </section>
      <Bowls head={head} />
      <Supports head={head} />
      <section aria-label="Growth">
        <h3 className="mb-0.5 text-[13px] font-semibold">In production</h3>
        <Outcome label="Wellhead growth" value={head.growth_in} quantity="height" working="wellhead/growth" />
        <p className="mt-1 text-[12px] text-mute">
          {head.growth_in === null
            ? "Unknown: it needs temperatures, pipe and tops of cement."
            : head.growth_in === 0
              ? "A string cemented up to the wellhead holds it."
              : "Strings are free down to their cement. What pushes up by more than it hangs lifts off its bowl."}
        </p>
      </section>
    </div>
  );
}

function Bowls({ head }: { head: WellheadResult }) {
  const units = useUnits();
  const strings = useEvaluated((e) => e.strings) ?? [];
  const unit = units.unit("force");
  if (head.hung.length === 0) return null;
  return (
    <section aria-label="Bowls">
      <h3 className="mb-0.5 text-[13px] font-semibold">On bowls and slips, as cemented</h3>
      <Facts
        label="Loads on bowls"
        heads={[{ title: "String" }, { title: "Hangs", unit }, { title: "Bowl", unit }, { title: "Production", unit }]}
        bad={(r) => head.hung[r]!.lifts || (head.hung[r]!.load_lbf ?? 0) > (head.hung[r]!.capacity_lbf ?? Infinity)}
        rows={head.hung.map((row) => [
          <span key="n" data-place={row.place}>
            {strings[row.string]?.od_in == null ? strings[row.string]?.role : units.text(strings[row.string]!.od_in, "size")}
            <span className="block text-[11.5px] text-mute">
              in {head.pieces[row.piece]!.name}
              {row.lifts && ": lifts off"}
            </span>
          </span>,
          row.load_lbf === null ? (
            "unknown"
          ) : (
            <Headline key="l" working={row.working} title="load on the bowl">
              {units.number(row.load_lbf, "force")}
            </Headline>
          ),
          units.number(row.capacity_lbf, "force"),
          row.growth_lbf === null ? "–" : units.number(row.growth_lbf, "force"),
        ])}
      />
    </section>
  );
}

function Supports({ head }: { head: WellheadResult }) {
  const units = useUnits();
  return (
    <section aria-label="Casing and conductor">
      <h3 className="mb-0.5 text-[13px] font-semibold">On casing and conductor</h3>
      <Facts
        label="Loads on casing and conductor"
        heads={[{ title: "" }, { title: "Load" }, { title: "Stands" }, { title: "Factor" }, { title: "Asked" }]}
        bad={(r) => {
          const { factor, asked } = head.loads[r]!;
          return factor !== null && asked !== null && factor < asked;
        }}
        rows={head.loads.map((row) => [
          row.what,
          row.load === null ? (
            "–"
          ) : row.working === null ? (
            units.text(row.load, row.quantity)
          ) : (
            <Headline key="l" working={row.working} title={row.what.toLowerCase()}>
              {units.text(row.load, row.quantity)}
            </Headline>
          ),
          row.rating === null ? "unknown" : units.text(row.rating, row.quantity),
          row.factor === null ? "–" : units.number(row.factor, "factor"),
          row.asked === null ? "–" : units.number(row.asked, "factor"),
        ])}
      />
    </section>
  );
}
