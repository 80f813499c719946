// What is pumped, in order, and how fast: rows that are moved by dragging or by key; proposed until somebody decides.
import { Printer } from "lucide-react";
import { useBench, useDocument } from "../../design/context";
import type { CementRow } from "../../design/types";
import type { ColumnSpec, Row, Told } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";
import { FieldLabel } from "../../ui/DocField";
import { PaperLinks } from "../../ui/PaperLinks";
import { useUnits } from "../../ui/units";
import { Decision } from "../running/parts";

const FLUIDS: readonly ColumnSpec[] = [
  { key: "kind", label: "Fluid" },
  "name",
  { key: "density_ppg", label: "Density" },
  { key: "volume_bbl", label: "Volume" },
  { key: "annulus_ft", label: "Length" },
  { key: "contact_minutes", label: "Contact" },
  { key: "rate_bpm", label: "Rate" },
];
const READINGS: readonly ColumnSpec[] = [
  { key: "kind", label: "Fluid" },
  { key: "reading_3", label: "3" },
  { key: "reading_6", label: "6" },
  { key: "reading_100", label: "100" },
  { key: "reading_200", label: "200" },
  { key: "reading_300", label: "300" },
  { key: "reading_600", label: "600 rpm" },
];
const STEPS: readonly ColumnSpec[] = [
  { key: "volume_bbl", label: "Pump" },
  { key: "rate_bpm", label: "Rate" },
  { key: "stop_minutes", label: "Then stop" },
];
const EMPTY: Row = {
  name: "",
  stage: 1,
  density_ppg: null,
  volume_bbl: null,
  annulus_ft: null,
  contact_minutes: null,
  rate_bpm: null,
  reading_3: null,
  reading_6: null,
  reading_100: null,
  reading_200: null,
  reading_300: null,
  reading_600: null,
};

export function Fluids({ row }: { row: CementRow }) {
  const units = useUnits();
  const { selected } = useBench();
  const path = `/strings/${selected}/cement`;
  const decided = useDocument((d) => d.strings[selected]?.cement?.fluids?.length ?? 0);
  const steps = useDocument((d) => d.strings[selected]?.cement?.steps?.length ?? 0);
  const staged = row.stages.length > 1;
  const worked = row.stages.flatMap((s) => s.fluids.map((f) => ({ ...f, stage: s.number })));
  const at = (i: number) => (decided > 0 ? worked.find((f) => f.row === i) : worked[i]);
  const told: Told[] = [
    { label: "is", unit: units.unit("emw"), px: 46, cell: (i) => (at(i) ? units.number(at(i)!.density_ppg, "emw") : "") },
    { label: "pumped", unit: units.unit("volume"), px: 52, cell: (i) => (at(i) ? units.number(at(i)!.volume_bbl, "volume") : "") },
    { label: "at", unit: units.unit("pump_rate"), px: 44, cell: (i) => (at(i) ? units.number(at(i)!.rate_bpm, "pump_rate") : "") },
  ];
  const law: Told[] = [
    { label: "Model", unit: "", px: 104, left: true, cell: (i) => (at(i) ? `${at(i)!.model}${at(i)!.assumed ? ", by policy" : ""}` : "") },
  ];
  const stage: ColumnSpec[] = staged ? [{ key: "stage", label: "Stage" }] : [];
  const proposed = worked.map((f, k) => ({
    ...EMPTY,
    id: `f${k + 1}`,
    kind: f.kind,
    name: f.name === f.kind ? "" : f.name,
    stage: f.stage,
  }));
  const shared = {
    className: "font-narrow",
    target: "fluids" as const,
    path: `${path}/fluids`,
    sortBy: null,
    movable: true,
    made: decided === 0,
    rows: decided > 0 ? undefined : proposed,
    newRow: () => ({ ...EMPTY, kind: "spacer" }),
    empty: "No fluids: the job cannot be followed yet.",
  };
  const shown = row.stages.flatMap((s) => s.steps.map((step) => ({ ...step, stage: s.number })));
  return (
    <>
      {row.stages.length > 0 && <PaperLinks papers={[{ file: "cement.pdf", text: "Job sheet for the cement unit, PDF", Icon: Printer }]} />}
      <div className="mb-1 grid grid-cols-[1fr_minmax(0,11rem)] items-center border-b border-rule/60 py-px text-[12.5px]">
        <FieldLabel path={`${path}/form`} />
        <Decision path={`${path}/form`} proposed={row.stages[0]?.inner ? "inner string" : "two plugs"} />
      </div>
      <p className="mb-1 text-[12px] text-mute">
        {decided > 0
          ? "In the order pumped. A selected row is moved by its number, or with Alt and the arrows."
          : "Proposed by policy; the first edit takes them over."}{" "}
        What is left empty follows: slurries by their tops, displacement to the plug&apos;s seat.
      </p>
      <Grid title="Fluids in the order pumped" columns={[...stage, ...FLUIDS]} told={told} {...shared} />
      <h3 className="mt-3 mb-1 text-[13px] font-semibold">Rheometer readings</h3>
      <Grid title="Rheometer readings" columns={READINGS} second told={law} {...shared} />
      <h3 className="mt-3 mb-1 text-[13px] font-semibold">Pumping schedule</h3>
      <p className="mb-1 text-[12px] text-mute">
        {steps > 0
          ? "Steps of pumping whatever fluid is next; an empty volume pumps all that is left."
          : "Each fluid at its rate, a stop for the top plug, and the last barrels slow; the first edit takes it over."}
      </p>
      <Grid
        title="Pumping schedule"
        className="font-narrow"
        target="pump_steps"
        path={`${path}/steps`}
        columns={[...stage, ...STEPS]}
        sortBy={null}
        movable
        made={steps === 0}
        rows={
          steps > 0
            ? undefined
            : shown.map((s) => ({
                stage: s.stage,
                volume_bbl: Number(s.volume_bbl.toFixed(1)),
                rate_bpm: s.rate_bpm,
                stop_minutes: s.stop_minutes,
              }))
        }
        newRow={() => ({ stage: 1, volume_bbl: null, rate_bpm: 5, stop_minutes: 0 })}
        empty="No step."
      />
    </>
  );
}
