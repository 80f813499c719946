// Centralizers and scratchers: runs by pattern or by wanted standoff, what they come to, and types of the person's own.
import { useBench, useDocument } from "../../design/context";
import type { RunningRow, TallyDetail } from "../../design/types";
import { DocCheck, FieldLabel } from "../../ui/DocField";
import type { ColumnSpec, Row } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";
import { useUnits } from "../../ui/units";
import { Decision, Line, Outcome } from "./parts";

const COLUMNS: readonly ColumnSpec[] = [
  "type",
  "top_md_ft",
  "base_md_ft",
  { key: "number", label: "No." },
  { key: "joints", label: "per joints" },
  { key: "standoff_percent", label: "Wanted" },
];
const TYPES: readonly ColumnSpec[] = [
  "name",
  "kind",
  "od_in",
  { key: "restoring_lbf", label: "Restoring" },
  { key: "running_lbf", label: "Running" },
  { key: "blade_in", label: "Blades" },
  { key: "price", label: "Price" },
];

export function Centralizers({ run, row }: { run: TallyDetail | undefined; row: RunningRow }) {
  const { selected } = useBench();
  const units = useUnits();
  const path = `/strings/${selected}/running`;
  const decided = useDocument((d) => d.strings[selected]?.running?.centralizers?.length ?? 0);
  const proposed: Row[] = (row.intervals ?? []).map((i, k) => ({
    id: `c${k + 1}`,
    type: i.type,
    top_md_ft: Math.round(i.top_md_ft),
    base_md_ft: Math.round(i.base_md_ft),
    number: i.number,
    joints: i.joints,
    standoff_percent: null,
  }));
  const last = row.intervals?.[row.intervals.length - 1];
  return (
    <>
      <p className="mb-1 text-[12px] text-mute">
        {decided > 0
          ? `Known for this size: ${run?.types.join(", ") ?? ""}. With a wanted standoff the widest pattern that keeps it is taken.`
          : "Proposed behind cement in open hole at the standoff of policy; the first edit takes it over."}
      </p>
      <Grid
        key={selected}
        title="Centralizers"
        className="font-narrow"
        target="centralizer_runs"
        path={`${path}/centralizers`}
        columns={COLUMNS}
        sortBy="top_md_ft"
        made={decided === 0}
        newRow={() => ({
          type: "bow spring",
          top_md_ft: Math.round(last?.top_md_ft ?? 0),
          base_md_ft: Math.round(row.shoe_md_ft ?? 0),
          number: 1,
          joints: 1,
          standoff_percent: null,
        })}
        empty="No centralizers."
        rows={decided > 0 ? undefined : proposed}
        told={[{ label: "Count", unit: "", px: 46, cell: (i) => row.intervals?.[i]?.count.toString() ?? "" }]}
      />
      <div className="mt-3 grid grid-cols-2 gap-x-5">
        <div>
          <Outcome
            label="Least standoff"
            value={row.least_standoff_percent}
            quantity="percent"
            working="standoff"
            note={row.least_standoff_md_ft == null ? "none is asked" : `at ${units.text(row.least_standoff_md_ft, "depth")}`}
          />
          <Outcome label="Centralizers" value={row.centralizers} quantity="count" note={`with ${row.stop_collars ?? 0} stop collars`} />
          <Outcome label="Running force, all" value={row.running_force_lbf} quantity="force" />
          {row.centralizer_price != null && <Outcome label="Price" value={row.centralizer_price} quantity="count" />}
        </div>
        <div>
          <Line path={`${path}/moved`}>
            <Decision path={`${path}/moved`} proposed={row.moved} />
          </Line>
          <div className="grid grid-cols-[1fr_auto] items-center border-b border-rule/60 py-0.5 text-[12.5px]">
            <FieldLabel path={`${path}/scratchers`} />
            <DocCheck path={`${path}/scratchers`} />
          </div>
          {row.scratchers != null && (
            <Outcome
              label="Number of them"
              value={row.scratchers}
              quantity="count"
              note={
                row.moved === "rotated"
                  ? "fixed to the pipe"
                  : row.moved === "reciprocated"
                    ? "a stroke apart at most"
                    : "they need movement"
              }
            />
          )}
          {run?.scratched_md_ft.map(([top, base]) => (
            <p key={top} className="text-[12px] text-mute">
              to be bonded: {units.number(top, "depth")} to {units.text(base, "depth")}
            </p>
          ))}
        </div>
      </div>
      <h3 className="mt-3 mb-1 text-[13px] font-semibold">Own centralizers</h3>
      <Grid
        title="Own centralizers"
        className="font-narrow"
        target="centralizers"
        path="/centralizers"
        columns={TYPES}
        sortBy="od_in"
        newRow={() => ({
          name: "own",
          kind: "bow spring",
          od_in: 9.625,
          restoring_lbf: null,
          running_lbf: null,
          starting_lbf: null,
          blade_in: null,
          price: null,
        })}
        empty="The generic ones: bow springs by the least forces of the standard, rigid ones with assumed blades."
      />
    </>
  );
}
