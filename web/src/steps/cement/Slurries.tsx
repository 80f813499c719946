// Slurries: top, recipe and volumes of each string's cement, and what its column at rest does to the rock.
import { useBench } from "../../design/context";
import { useAtRig } from "../../design/level";
import { useReference } from "../../design/reference";
import { DocNumber, FieldLabel, UnitOf } from "../../ui/DocField";
import { Headline } from "../../ui/Headline";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";
import type { CementRow, Evaluation, Quantity } from "../../design/types";

interface Line {
  label: string;
  /** What it is called where some string has a lead. */
  besideLead?: string;
  quantity: Quantity;
  value: (row: CementRow) => number | null;
  working?: string;
  /** Of which strings it is told, when not of all. */
  only?: (row: CementRow) => boolean;
}

const withLead = (row: CementRow) => row.lead_ppg !== null;
const inThree = (row: CementRow) => row.third_stage_bbl !== null;
const inStages = (row: CementRow) => row.stage_collar_md_ft !== null;

const RESULTS: readonly Line[] = [
  { label: "Slurry weight", quantity: "emw", value: (r) => r.slurry_ppg, working: "density" },
  { label: "Slurry yield", quantity: "slurry_yield", value: (r) => r.yield_ft3_sk, working: "density" },
  { label: "Lead weight", quantity: "emw", value: (r) => r.lead_ppg, working: "lead_density", only: withLead },
  { label: "Lead yield", quantity: "slurry_yield", value: (r) => r.lead_yield_ft3_sk, working: "lead_density", only: withLead },
  { label: "Cased-hole annulus", quantity: "volume", value: (r) => r.cased_annulus_bbl },
  { label: "Open-hole annulus, with excess", quantity: "volume", value: (r) => r.open_annulus_bbl },
  { label: "Shoe track", quantity: "volume", value: (r) => r.shoe_track_bbl },
  { label: "Rathole", quantity: "volume", value: (r) => r.rathole_bbl },
  { label: "Total slurry", quantity: "volume", value: (r) => r.slurry_bbl, working: "slurry" },
  { label: "Lead slurry", quantity: "volume", value: (r) => r.lead_bbl, working: "lead", only: withLead },
  { label: "Tail slurry", quantity: "volume", value: (r) => r.tail_bbl, working: "tail", only: withLead },
  { label: "Second-stage slurry", quantity: "volume", value: (r) => r.second_stage_bbl, working: "second_stage", only: inStages },
  { label: "Third-stage slurry", quantity: "volume", value: (r) => r.third_stage_bbl, working: "third_stage", only: inThree },
  {
    label: "Slurry over the liner top",
    quantity: "volume",
    value: (r) => r.over_hanger_bbl,
    only: (row: CementRow) => row.over_hanger_bbl !== null,
  },
  { label: "Sacks", besideLead: "Sacks, tail", quantity: "sacks", value: (r) => r.sacks, working: "sacks" },
  { label: "Sacks, lead", quantity: "sacks", value: (r) => r.lead_sacks, working: "lead_sacks", only: withLead },
  { label: "Mix water", quantity: "volume", value: (r) => r.mix_water_bbl },
  { label: "Landing string", quantity: "volume", value: (r) => r.landing_string_bbl },
  { label: "Displacement to float collar", quantity: "volume", value: (r) => r.displacement_bbl, working: "displacement" },
  {
    label: "Displacement to stage collar",
    quantity: "volume",
    value: (r) => r.second_displacement_bbl,
    working: "second_displacement",
    only: inStages,
  },
  { label: "Differential on the float", quantity: "pressure", value: (r) => r.float_differential_psi, working: "float" },
  { label: "Plug bump pressure", quantity: "pressure", value: (r) => r.bump_psi, working: "bump" },
  { label: "Maximum static EMW against fracture", quantity: "emw", value: (r) => r.greatest_emw_ppg, working: "column" },
  { label: "Fracture there", quantity: "emw", value: (r) => r.fracture_ppg },
  { label: "Depth of that", quantity: "depth", value: (r) => r.greatest_emw_md_ft },
];
const ADDITIVES = ["silica_flour_percent", "barite_percent", "haematite_percent", "salt_percent"];

export function Slurries({ evaluation }: { evaluation: Evaluation }) {
  const units = useUnits();
  const atRig = useAtRig();
  const { selected, select } = useBench();
  const columns = evaluation.cement.strings.flatMap((row, index) =>
    row.applies ? [{ row, index, string: evaluation.strings[index]! }] : [],
  );
  const sizeOf = (index: number) => units.text(evaluation.strings[index]!.od_in, "size");
  const inputs: { key: string; proposed: (r: CementRow) => number | null }[] = [
    { key: "top_md_ft", proposed: (r) => r.top_md_ft },
    { key: "slurry_water_gal_sk", proposed: (r) => r.water_gal_sk },
    { key: "bentonite_percent", proposed: (r) => r.bentonite_percent },
    ...ADDITIVES.map((key) => ({ key, proposed: () => null })),
    { key: "tail_top_md_ft", proposed: (r) => r.tail_top_md_ft },
    { key: "lead_water_gal_sk", proposed: (r) => r.lead_water_gal_sk },
    { key: "lead_bentonite_percent", proposed: (r) => r.lead_bentonite_percent },
    { key: "stage_collar_md_ft", proposed: () => null },
    { key: "upper_collar_md_ft", proposed: () => null },
    ...(columns.some(({ string }) => string.run === "liner") ? [{ key: "over_hanger_ft", proposed: () => null }] : []),
    { key: "displacement_ppg", proposed: (r) => r.displacement_ppg },
    { key: "bump_psi", proposed: (r) => r.bump_over_psi },
    { key: "excess", proposed: (r) => r.excess },
  ];
  const reference = useReference();
  const placeOf = (key: string) => `/strings/*/cement/${key}`;
  return (
    <table className="border-collapse text-[12.5px]" aria-label="Cement of each string">
      <thead>
        <tr>
          <th className="w-72 border-b border-rule text-left font-normal text-mute">Decided, or proposed in italics</th>
          {columns.map(({ index, string }) => (
            <th
              key={index}
              className={`w-32 border-b border-rule px-1 text-right ${index === selected ? "border-b-petrol text-petrol" : ""}`}
            >
              <button
                type="button"
                className="font-semibold"
                onClick={() => {
                  select(index);
                }}
              >
                {sizeOf(index)}
              </button>
              <span className="block text-[11.5px] font-normal text-mute">{string.role}</span>
            </th>
          ))}
          <th className="w-14 border-b border-rule">
            <span className="sr-only">unit</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {inputs.map((input) => (
          <tr key={input.key} className="border-b border-rule/60">
            <th scope="row" className="text-left font-normal">
              <FieldLabel path={placeOf(input.key)} />
            </th>
            {columns.map(({ row, index }) => (
              <td key={index} className="px-1">
                <DocNumber
                  label={`${sizeOf(index)} ${reference.at(placeOf(input.key)).title}`}
                  path={`/strings/${index}/cement/${input.key}`}
                  proposed={input.proposed(row)}
                />
              </td>
            ))}
            <td className="pl-1 text-mute">
              <UnitOf path={placeOf(input.key)} />
            </td>
          </tr>
        ))}
        {RESULTS.filter(({ only }) => columns.some(({ row }) => only?.(row) ?? true)).map((result) => (
          <tr
            key={result.label}
            className={`border-b border-rule/60 ${result.label === "Slurry weight" ? "border-t-2 border-t-rule" : ""}`}
          >
            <th scope="row" className="py-0.5 text-left font-normal">
              <Term>{(columns.some(({ row }) => withLead(row)) && result.besideLead) || result.label}</Term>
              {result.working === "bump" && atRig}
            </th>
            {columns.map(({ row, index }) => (
              <td key={index} className="px-2 text-right">
                <ResultCell result={result} row={row} index={index} size={sizeOf(index)} />
              </td>
            ))}
            <td className="pl-1 text-mute">{units.unit(result.quantity)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function ResultCell({ result, row, index, size }: { result: Line; row: CementRow; index: number; size: string }) {
  const units = useUnits();
  const value = result.value(row);
  if (result.only?.(row) === false) return null;
  const over =
    result.working === "column" && row.greatest_emw_ppg !== null && row.fracture_ppg !== null && row.greatest_emw_ppg > row.fracture_ppg;
  const text = <span className={over ? "font-semibold text-brick" : ""}>{units.number(value, result.quantity)}</span>;
  if (value === null || result.working === undefined) return text;
  return (
    <Headline working={`cement/${index}/${result.working}`} title={`${result.label.toLowerCase()}, ${size}`}>
      {text}
    </Headline>
  );
}
