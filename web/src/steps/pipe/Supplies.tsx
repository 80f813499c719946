// Pipes of the person's own, and the stock list with its prices: typed, pasted, or imported from CSV and XLSX.
import { DocChoice } from "../../ui/DocField";
import { Grid } from "../../ui/grid/Grid";
import type { ColumnSpec } from "../../ui/grid/columns";

const PIPE: readonly ColumnSpec[] = [
  "od_in",
  { key: "weight_ppf", label: "Wt" },
  "wall_in",
  "grade",
  { key: "yield_psi", label: "Yield" },
  { key: "connection", label: "Conn." },
  "coupling_od_in",
];
const RATINGS: readonly ColumnSpec[] = [
  { key: "weight_ppf", label: "Wt" },
  "drift_in",
  { key: "burst_psi", label: "Burst" },
  { key: "collapse_psi", label: "Collapse" },
  { key: "body_lbf", label: "Body" },
  { key: "joint_lbf", label: "Joint" },
  { key: "joint_psi", label: "Leak" },
];
const STOCK: readonly ColumnSpec[] = [
  "od_in",
  "weight_ppf",
  "grade",
  { key: "connection", label: "Conn." },
  "price_per_ft",
  { key: "available_ft", label: "In stock" },
];

const newPipe = () => ({
  od_in: 7,
  weight_ppf: 29,
  wall_in: 0.408,
  grade: "own",
  yield_psi: 80_000,
  connection: "own",
  coupling_od_in: 7.656,
});

export function OwnPipes() {
  return (
    <>
      <p className="mb-1 text-[12px] text-mute">
        A pipe that the catalogue does not hold. Ratings left empty follow from size and yield; those of the connection stay unknown until
        they are given.
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
        <DocChoice label="Choose pipe from" path="/policy/pipe/choose_from" fallback="catalogue" />
        <span>Minimize</span>
        <DocChoice label="Minimize" path="/policy/pipe/least" fallback="cost" />
      </div>
      <p className="mb-1 text-[12px] text-mute">
        Prices are per foot in a currency of your own. A length left empty is not limited; a limited one holds for the whole well.
      </p>
      <Grid
        title="Stock list"
        target="stock"
        path="/stock"
        columns={STOCK}
        sortBy="od_in"
        newRow={() => ({ od_in: 7, weight_ppf: 29, grade: "L80", connection: "LTC", price_per_ft: 40, available_ft: null })}
        empty="No price yet."
      />
    </>
  );
}
