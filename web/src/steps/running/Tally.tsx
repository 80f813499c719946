// The tally: joints in the order in which they go in, as measured or made from the length range, and how the string lands.
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { RunningRow, TallyDetail } from "../../design/types";
import { DocNumber, FieldLabel, UnitOf } from "../../ui/DocField";
import type { ColumnSpec, Row, Told } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";
import { useUnits } from "../../ui/units";
import { Decision, Line, Outcome, Waiting } from "./parts";
import { RackLinks } from "./RackLinks";

const COLUMNS: readonly ColumnSpec[] = [
  { key: "length_ft", label: "Measured" },
  { key: "section", label: "Sect." },
  "kind",
  { key: "left_out", label: "Out" },
];

const newJoint = (rows: readonly Row[]): Row => ({
  length_ft: rows.length > 0 ? rows[rows.length - 1]!.length_ft : 40,
  section: null,
  kind: "joint",
  left_out: false,
});

/** The joints of a made tally as they would be decided. */
const asDecided = (run: TallyDetail): Row[] =>
  run.joints.map((j) => ({ length_ft: Number(j.length_ft.toFixed(2)), section: null, kind: j.kind, left_out: false }));

export function Tally({ run, row }: { run: TallyDetail | undefined; row: RunningRow }) {
  const units = useUnits();
  const { selected } = useBench();
  const decided = useDocument((d) => d.strings[selected]?.running?.joints?.length ?? 0);
  const path = `/strings/${selected}/running`;
  // measured joints stay to be mended where nothing can be worked of them
  if (run === undefined && decided === 0) return <Waiting />;
  const by = new Map((run?.joints ?? []).map((j) => [decided > 0 ? j.row : j.number - 1, j]));
  const told: Told[] = [
    { label: "No.", unit: "", px: 34, cell: (i) => by.get(i)?.number.toString() ?? (run === undefined ? "" : "rack") },
    { label: "Adds", unit: units.unit("length"), px: 52, cell: (i) => (by.has(i) ? units.number(by.get(i)!.effective_ft, "length") : "") },
    { label: "Total", unit: units.unit("length"), px: 66, cell: (i) => (by.has(i) ? units.number(by.get(i)!.total_ft, "length") : "") },
    {
      label: "Top lands at",
      unit: units.unit("depth"),
      px: 60,
      cell: (i) => (by.has(i) ? units.number(by.get(i)!.top_md_ft, "depth") : ""),
    },
    { label: "Carries", unit: "", px: 150, left: true, cell: (i) => carried(by.get(i)) },
  ];
  return (
    <>
      <Landing row={row} path={path} />
      <p className="mt-2 mb-1 text-[12px] text-mute">
        {decided > 0
          ? `${decided} joints measured. A selected row is moved by its number, or with Alt and the arrows.`
          : "Made from the length range until a tally is typed, pasted or imported; the first edit takes it over."}
      </p>
      <RackLinks />
      <Grid
        key={selected}
        title="Tally"
        className="font-narrow"
        target="joints"
        path={`${path}/joints`}
        columns={COLUMNS}
        sortBy={null}
        movable
        made={decided === 0}
        newRow={newJoint}
        empty="No joint."
        rows={decided > 0 || run === undefined ? undefined : asDecided(run)}
        told={told}
      />
    </>
  );
}

function carried(joint: TallyDetail["joints"][number] | undefined): string {
  if (joint === undefined) return "";
  const parts = [...joint.carries];
  if (joint.centralizers > 0) parts.push(joint.centralizers > 1 ? `${joint.centralizers} centralizers` : "centralizer");
  if (joint.fill) parts.push("fill");
  return parts.join(", ");
}

/** How the string is held, and where it then stands. */
function Landing({ row, path }: { row: RunningRow; path: string }) {
  const units = useUnits();
  const range = useDocument((d) => d.policy.pipe.length_range);
  const { selected } = useBench();
  const allowed = useDocument((d) => d.policy.running?.shoe_off_ft ?? 3) + 1e-6;
  const planned = useEvaluated((e) => e.strings)?.[selected]?.shoe_md_ft ?? null;
  const off = row.shoe_off_ft ?? 0;
  const over = row.over_ft ?? 0;
  return (
    <div className="grid grid-cols-2 gap-x-5">
      <div>
        {row.hung !== "liner hanger" && (
          <Line path={`${path}/hanger`}>
            <Decision path={`${path}/hanger`} proposed={row.hung} />
          </Line>
        )}
        {row.hung === "mandrel" && (
          <div className="grid grid-cols-[1fr_9.5rem_3.5rem] items-center border-b border-rule/60 py-px text-[12.5px]">
            <FieldLabel path={`${path}/landing_md_ft`} />
            <DocNumber path={`${path}/landing_md_ft`} proposed={row.top_md_ft} />
            <span className="pl-1.5 text-mute">
              <UnitOf path={`${path}/landing_md_ft`} />
            </span>
          </div>
        )}
        <Outcome
          label="Joints"
          value={row.joints}
          quantity="count"
          note={`range ${range}${row.pups ? `, ${row.pups} pup joints` : ""}${row.left_out ? `, ${row.left_out} left out` : ""}`}
        />
        <Outcome label="Spare joints" value={row.spares} quantity="count" />
      </div>
      <div>
        <Outcome label="String with its equipment" value={row.total_ft} quantity="length" />
        <Outcome
          label="Shoe lands at"
          value={row.shoe_md_ft}
          quantity="length"
          bad={Math.abs(off) > allowed}
          note={
            Math.abs(off) > 0.005
              ? `${units.text(Math.abs(off), "length")} ${off > 0 ? "deeper" : "short"}`
              : planned === null
                ? undefined
                : "as planned"
          }
        />
        {row.hung === "slips" ? (
          <Outcome
            label="Stick-up above the rotary"
            value={row.top_md_ft == null ? null : -row.top_md_ft}
            quantity="length"
            bad={over < 0}
            note={over < 0 ? `${units.text(-over, "length")} short` : undefined}
          />
        ) : (
          <Outcome label={row.hung === "mandrel" ? "Hanger lands at" : "Liner top"} value={row.top_md_ft} quantity="length" />
        )}
      </div>
    </div>
  );
}
