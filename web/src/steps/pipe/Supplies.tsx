// Pipes of the person's own, and the stock list with its prices: typed, pasted, or imported from CSV and XLSX.
import { DocChoice } from "../../ui/DocField";
import { Grid } from "../../ui/grid/Grid";
import type { GridColumn } from "../../ui/grid/columns";

const PIPE: readonly GridColumn[] = [
  { key: "od_in", label: "OD", kind: "number", quantity: "size" },
  { key: "weight_ppf", label: "Wt", kind: "number", quantity: "linear_weight" },
  { key: "wall_in", label: "Wall", kind: "number", quantity: "diameter" },
  { key: "grade", label: "Grade", kind: "text" },
  { key: "yield_psi", label: "Yield", kind: "number", quantity: "pressure", width: "18%" },
  { key: "connection", label: "Conn.", kind: "text" },
  { key: "coupling_od_in", label: "Joint OD", kind: "number", quantity: "diameter" },
];
const RATINGS: readonly GridColumn[] = [
  { key: "weight_ppf", label: "Wt", kind: "number", quantity: "linear_weight" },
  { key: "drift_in", label: "Drift", kind: "number", quantity: "diameter", optional: true },
  { key: "burst_psi", label: "Burst", kind: "number", quantity: "pressure", optional: true },
  { key: "collapse_psi", label: "Collapse", kind: "number", quantity: "pressure", optional: true },
  { key: "body_lbf", label: "Body", width: "17%", kind: "number", quantity: "force", optional: true },
  { key: "joint_lbf", label: "Joint", width: "17%", kind: "number", quantity: "force", optional: true },
  { key: "joint_psi", label: "Joint holds", kind: "number", quantity: "pressure", optional: true },
];
const STOCK: readonly GridColumn[] = [
  { key: "od_in", label: "OD", kind: "number", quantity: "size" },
  { key: "weight_ppf", label: "Weight", kind: "number", quantity: "linear_weight" },
  { key: "grade", label: "Grade", kind: "text" },
  { key: "connection", label: "Conn.", kind: "text" },
  { key: "price_per_ft", label: "Price per ft", kind: "number", quantity: "factor" },
  { key: "available_ft", label: "In stock", kind: "number", quantity: "depth", optional: true },
];

const newPipe = () => ({ od_in: 7, weight_ppf: 29, wall_in: 0.408, grade: "own", yield_psi: 80_000, connection: "own", coupling_od_in: 7.656 });

export function OwnPipes() {
  return (
    <>
      <p className="mb-1 text-[12px] text-mute">
        A pipe that the catalogue does not hold. Ratings left empty follow from size and yield; those of the connection stay unknown until they are given.
      </p>
      <Grid title="Own pipes" target="pipes" path="/pipes" columns={PIPE} sortBy="od_in" newRow={newPipe} empty="No pipe of your own." />
      <h3 className="mt-3 mb-1 text-[13px] font-semibold">Their ratings, where given</h3>
      <Grid title="Ratings of own pipes" target="pipes" path="/pipes" columns={RATINGS} sortBy="od_in" newRow={newPipe} empty="" />
    </>
  );
}

export function Stock() {
  return (
    <>
      <div className="mb-1 grid grid-cols-[1fr_7rem] items-center text-[12.5px]">
        <span>Choose pipe from</span>
        <DocChoice label="Choose pipe from" path="/policy/choose_from" options={["catalogue", "stock list"]} fallback="catalogue" />
        <span>Least</span>
        <DocChoice label="Least of" path="/policy/least" options={["cost", "weight"]} fallback="cost" />
      </div>
      <p className="mb-1 text-[12px] text-mute">Prices are per foot in a currency of your own. A length left empty is not limited; a limited one limits each section.</p>
      <Grid title="Stock list" target="stock" path="/stock" columns={STOCK} sortBy="od_in" newRow={() => ({ od_in: 7, weight_ppf: 29, grade: "L80", connection: "LTC", price_per_ft: 40, available_ft: null })} empty="No price yet." />
    </>
  );
}
