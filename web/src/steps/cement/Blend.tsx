// What goes into the slurries: additives of each, and the blend sheet that follows, by the sack, in all and by the tank.
import { useQuery } from "@tanstack/react-query";
import { getCatalogue } from "../../design/api";
import { adoption, useAt, useBench } from "../../design/context";
import type { CementRow } from "../../design/types";
import { FieldLabel, DocChoice } from "../../ui/DocField";
import { Empty } from "../../ui/Panel";
import { Grid } from "../../ui/grid/Grid";
import type { Row } from "../../ui/grid/columns";
import { grouped } from "../../ui/numbers";
import { useUnits } from "../../ui/units";
import { stageName } from "./stages";

export function Blend({ row }: { row: CementRow }) {
  const { selected } = useBench();
  const path = `/strings/${selected}/cement`;
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <section aria-label="Additives">
        <div className="grid grid-cols-[1fr_minmax(0,11rem)] items-center border-b border-rule/60 py-px text-[12.5px]">
          <FieldLabel path={`${path}/water`} />
          <DocChoice path={`${path}/water`} fallback="fresh water" />
        </div>
        <Offered path={`${path}/additives`} lead={row.lead_ppg !== null} />
        <Grid
          title="Additives"
          className="font-narrow"
          target="additives"
          path={`${path}/additives`}
          columns={["slurry", "name", "amount", "per", { key: "sg", label: "SG" }]}
          sortBy={null}
          newRow={() => ({ slurry: "tail", name: "additive", amount: 1, per: "% of cement", sg: 1.3 })}
          empty="No additive yet: choose a generic one above, or add your own."
        />
      </section>
      {row.blends.length === 0 ? (
        <Empty>No slurry to blend yet.</Empty>
      ) : (
        row.blends.map((b, k) => <Sheet key={k} blend={b} staged={row.stages.length > 1} />)
      )}
    </div>
  );
}

/** Generic additives: one chosen goes into the table with its usual amount. */
function Offered({ path, lead }: { path: string; lead: boolean }) {
  const { session } = useBench();
  const { data } = useQuery({ queryKey: ["catalogue"], queryFn: getCatalogue, staleTime: Infinity });
  const held = (useAt(path) as Row[] | undefined) ?? [];
  const add = (value: string) => {
    const [slurry, name] = value.split(":");
    const chosen = data?.additives.find((a) => a.name === name);
    if (chosen === undefined) return;
    const { document, evaluation } = session.snapshot();
    const fresh = { slurry, name: chosen.name, amount: chosen.amount, per: chosen.per, sg: chosen.sg };
    session.edit([...adoption(document, evaluation), { path, value: [...held, fresh] }]);
  };
  return (
    <select
      aria-label="Add a generic additive"
      className="my-1 w-full max-w-80 rounded border border-rule bg-sheet px-1 py-0.5 text-[12.5px]"
      value=""
      onChange={(event) => {
        add(event.target.value);
      }}
    >
      <option value="">Add a generic additive…</option>
      {(lead ? (["tail", "lead"] as const) : (["tail"] as const)).map((slurry) => (
        <optgroup key={slurry} label={lead ? `to the ${slurry}` : "to the slurry"}>
          {data?.additives.map((a) => (
            <option key={a.name} value={`${slurry}:${a.name}`}>
              {a.name}, {a.use}
            </option>
          ))}
        </optgroup>
      ))}
    </select>
  );
}

const FT3_PER_BBL = 5.614583;

function Sheet({ blend, staged }: { blend: CementRow["blends"][number]; staged: boolean }) {
  const units = useUnits();
  // liquids by the gallon or the litre: barrels are too large for them
  const liquid = units.unit("water").replace("/sk", "");
  const amount = (value: number | null, unit: "lb" | "gal", digits: number) => {
    if (value === null) return "";
    if (unit === "lb") return units.number(value, "mass");
    return grouped(Number((value * units.factor("water")).toFixed(digits)));
  };
  const bulk =
    units.unit("volume") === "bbl" ? `${grouped(Math.round(blend.bulk_ft3))} ft³` : units.text(blend.bulk_ft3 / FT3_PER_BBL, "volume");
  const name = `${blend.slurry === "lead" ? "Lead" : "Tail"}${staged ? `, ${stageName(blend.stage)}` : ""}`;
  return (
    <section aria-label={`Blend sheet, ${name}`}>
      <h3 className="text-[13px] font-semibold">
        {name}: {units.text(blend.volume_bbl, "volume")}
        <span className="font-normal text-mute">
          , {units.text(blend.sacks, "sacks")} ({bulk} in bulk), {units.text(blend.water_bbl, "volume")} of mix water
          {blend.tanks > 0 && ` in ${Math.ceil(blend.tanks - 1e-9)} tanks of ${units.text(blend.water_bbl / blend.tanks, "volume")}`}
        </span>
      </h3>
      <table className="w-full border-collapse text-[12.5px]">
        <thead>
          <tr className="text-right text-[11.5px] text-mute">
            <th className="border-b border-rule text-left font-normal">Goes in</th>
            <th className="border-b border-rule font-normal">By the sack</th>
            <th className="border-b border-rule font-normal">In all</th>
            <th className="border-b border-rule font-normal">By the tank</th>
            <th className="w-10 border-b border-rule">
              <span className="sr-only">unit</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {blend.items.map((item, k) => (
            <tr key={k} className="border-b border-rule/60 text-right">
              <th scope="row" className="text-left font-normal">
                {item.name}
              </th>
              <td className="tabular-nums">{(item.per_sack * units.factor(item.unit === "lb" ? "mass" : "water")).toFixed(3)}</td>
              <td className="tabular-nums">{amount(item.total, item.unit, 1)}</td>
              <td className="tabular-nums">{amount(item.per_tank, item.unit, 2)}</td>
              <td className="pl-1 text-left text-mute">{item.unit === "lb" ? units.unit("mass") : liquid}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
