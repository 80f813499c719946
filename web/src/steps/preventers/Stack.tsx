// The stack in hand: its class and why, its elements bottom to top, its lines, and where casing rams are rigged.
import { useBench, useDocument, useEvaluated } from "../../design/context";
import { freshId } from "../../design/ids";
import { useReference } from "../../design/reference";
import type { StackRow, Words } from "../../design/types";
import { Button } from "../../ui/Button";
import { Facts } from "../../ui/Facts";
import { Choice } from "../../ui/Field";
import type { ColumnSpec } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { Outcome } from "../../ui/Outcome";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

const BLOCKS: readonly ColumnSpec[] = [
  "element",
  { key: "size_in", label: "Fits" },
  { key: "from_in", label: "From" },
  { key: "to_in", label: "To" },
  { key: "height_in", label: "Height" },
];
const RATED: readonly ColumnSpec[] = [
  "name",
  { key: "class_psi", label: "Class" },
  { key: "bore_in", label: "Bore" },
  { key: "weight_lbf", label: "Weight" },
  { key: "joined", label: "One body" },
];
const OPERATED: readonly ColumnSpec[] = [
  { key: "close_gal", label: "Close" },
  { key: "open_gal", label: "Open" },
  { key: "closing_ratio", label: "Ratio" },
  { key: "area_in2", label: "Piston" },
  { key: "hang_off_lbf", label: "Hang-off" },
];

export function Stack({ row }: { row: StackRow }) {
  const { session, selected } = useBench();
  const stacks = useDocument((d) => d.preventers);
  // on the sea floor one stack stands through all sections, on the string that is run with the housing
  const id = useEvaluated((e) => e.strings[e.wellhead.sea?.carrier ?? selected]?.id);
  const role = useEvaluated((e) => e.strings[selected]?.role);
  const at = stacks.findIndex((s) => s.string === id);
  const decide = () => {
    const others = stacks.filter((s) => s.string !== id);
    session.edit([{ path: "/preventers", value: row.decided ? others : [...others, decided(row, id!)] }]);
  };
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <Rating row={row} at={at} conductor={role === "conductor"} />
      {row.elements.length > 0 && (
        <div>
          <Button onClick={decide}>{row.decided ? "Back to the proposal" : "Decide this stack"}</Button>
        </div>
      )}
      {row.decided && at >= 0 ? <TypedElements at={at} /> : <Proposed row={row} />}
      {row.elements.some((e) => e.close_gal !== null) && <Operators row={row} />}
      {row.decided && at >= 0 && role !== "conductor" && <Lines row={row} at={at} />}
      <p className="text-[12px] text-mute">
        Heights, fluid and pistons that are not typed are planning values. Elements are the least of policy for the class; local rules
        prevail.
      </p>
    </div>
  );
}

function decided(row: StackRow, string: string) {
  return {
    id: freshId("/preventers"),
    string,
    class_psi: row.class_psi ?? 500,
    elements: row.elements.map(({ id, element, size_in, from_in, to_in, height_in }) => ({
      id,
      element,
      size_in,
      from_in,
      to_in,
      height_in,
    })),
    casing_ram: row.casing_ram == null ? null : row.elements[row.casing_ram]!.id,
  };
}

const REACHES = { land: "Reaches above ground", platform: "Reaches above the deck", subsea: "Reaches above the mudline" } as const;

function Rating({ row, at, conductor }: { row: StackRow; at: number; conductor: boolean }) {
  const { session, selected } = useBench();
  const units = useUnits();
  const classes = useReference().at("/preventers/*/class_psi").offered ?? [];
  const setting = useDocument((d) => d.site.setting);
  return (
    <section aria-label="Rating" data-place={at < 0 ? undefined : `/preventers/${at}`}>
      <div className="grid grid-cols-[1fr_auto] items-baseline border-b border-rule/60 py-0.5 text-[12.5px]">
        <span>{setting === "subsea" ? "Pressure at the wellhead on the sea floor" : "Greatest surface pressure"}</span>
        {row.pressure_psi === null ? (
          "unknown"
        ) : (
          <Headline working={`wellhead/${selected}/surface_pressure`} title="surface pressure">
            {units.text(row.pressure_psi, "pressure")}
          </Headline>
        )}
      </div>
      {row.rig_psi !== null && (
        <Outcome
          label="At the rig floor, gas in the choke line"
          value={row.rig_psi}
          quantity="pressure"
          working={`preventers/${selected}/rig_pressure`}
        />
      )}
      {!conductor && (
        <div className="grid grid-cols-[1fr_8rem] items-center border-b border-rule/60 py-px text-[12.5px]">
          <span>Class, {units.unit("pressure")}</span>
          {at < 0 ? (
            <span className="text-right" data-place={`/strings/${selected}`}>
              {row.class_psi === null ? "unknown" : units.number(row.class_psi, "pressure", 0)} <i className="text-mute">proposed</i>
            </span>
          ) : (
            <Choice
              label="Class of the stack"
              place={`/preventers/${at}/class_psi`}
              value={String(row.class_psi)}
              options={classOptions(classes, row.class_psi).map((c) => ({ value: String(c), text: units.number(c, "pressure", 0) }))}
              onCommit={(value) => {
                session.edit([{ path: `/preventers/${at}/class_psi`, value: Number(value) }]);
              }}
            />
          )}
        </div>
      )}
      {row.flange !== null && (
        <div className="grid grid-cols-[1fr_auto] border-b border-rule/60 py-0.5 text-[12.5px]">
          <span>Flange</span>
          <span>{row.flange}</span>
        </div>
      )}
      <Outcome label="Stack height" value={row.height_in} quantity="height" />
      <Outcome label={REACHES[setting]} value={row.reach_ft} quantity="length" />
      <Outcome label="Stack weight" value={row.weight_lbf} quantity="force" />
    </section>
  );
}

const classOptions = (offered: readonly number[], held: number | null) =>
  held === null || offered.includes(held) ? offered : [...offered, held].sort((a, b) => a - b);

function Proposed({ row }: { row: StackRow }) {
  const units = useUnits();
  const rows = [...row.elements].reverse();
  return (
    <Facts
      label="Elements, top to bottom"
      heads={[{ title: "Top to bottom" }, { title: "Fits", left: true }, { title: "Height", unit: units.unit("height") }]}
      rows={rows.map((e) => [
        <span key="n">
          {e.title}
          <span className="block text-[11.5px] text-mute">{e.why}</span>
        </span>,
        units.words(e.fits as Words),
        units.number(e.height_in, "height"),
      ])}
    />
  );
}

/** What closes each element: as typed, else planning values. */
function Operators({ row }: { row: StackRow }) {
  const units = useUnits();
  const rows = row.elements.filter((e) => e.close_gal !== null).reverse();
  return (
    <details className="text-[12.5px]">
      <summary className="cursor-pointer text-mute">Operators in force</summary>
      <Facts
        label="Operators in force, top to bottom"
        heads={[
          { title: "Element" },
          { title: "Close", unit: units.unit("gallons") },
          { title: "Open", unit: units.unit("gallons") },
          { title: "Ratio" },
          { title: "Piston", unit: units.unit("area") },
          { title: "Hang-off", unit: units.unit("force") },
        ]}
        rows={rows.map((e) => [
          e.title,
          units.number(e.close_gal, "gallons"),
          units.number(e.open_gal, "gallons"),
          e.closing_ratio === null ? "–" : units.number(e.closing_ratio, "factor"),
          e.area_in2 === null ? "–" : units.number(e.area_in2, "area"),
          e.hang_off_lbf === null ? "–" : units.number(e.hang_off_lbf, "force"),
        ])}
      />
    </details>
  );
}

/** The elements as the document holds them, whether it can be evaluated or not. */
export function TypedElements({ at }: { at: number }) {
  const path = `/preventers/${at}/elements`;
  const shared = {
    target: "elements" as const,
    path,
    sortBy: null,
    movable: true,
    least: 1,
    newRow: () => ({ id: freshId("/preventers/elements"), element: "pipe rams" }),
    empty: "No element yet.",
  };
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <Titled title="Elements, bottom to top">
        <Grid title="Elements, bottom to top" className="font-narrow" columns={BLOCKS} {...shared} />
      </Titled>
      <Titled title="Ratings" note="empty: those of the stack">
        <Grid title="Ratings of the elements" className="font-narrow" columns={RATED} second {...shared} />
      </Titled>
      <Titled title="Operators" note="empty: planning values">
        <Grid title="Operators of the elements" className="font-narrow" columns={OPERATED} second {...shared} />
      </Titled>
    </div>
  );
}

const LINES = [
  ["choke", "Choke line at"],
  ["kill", "Kill line at"],
  ["casing_ram", "Casing rams in"],
] as const;

/** At which element the lines stand, and which rams are changed for casing. */
function Lines({ row, at }: { row: StackRow; at: number }) {
  const { session } = useBench();
  const stack = useDocument((d) => d.preventers[at]);
  if (stack === undefined) return null;
  const usual = { choke: row.choke, kill: row.kill, casing_ram: null };
  return (
    <section aria-label="Lines and casing rams">
      {LINES.map(([key, label]) => {
        const fits = row.elements.filter((e) => (key === "casing_ram" ? e.kind === "ram" : e.outlets > 0));
        const proposed = usual[key] == null ? "none" : row.elements[usual[key]]!.title;
        return (
          <div key={key} className="grid grid-cols-[1fr_minmax(0,12rem)] items-center border-b border-rule/60 py-px text-[12.5px]">
            <span>{label}</span>
            <Choice
              label={label}
              place={`/preventers/${at}/${key}`}
              value={stack[key] ?? ""}
              decided={stack[key] != null}
              options={[{ value: "", text: proposed }, ...fits.map((e) => ({ value: e.id, text: e.title }))]}
              onCommit={(value) => {
                session.edit([{ path: `/preventers/${at}/${key}`, value: value === "" ? null : value }]);
              }}
            />
          </div>
        );
      })}
    </section>
  );
}
