// Sealed annuli: what production's heat builds up in each, what that does to the casings, and what lets it go.
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { AnnulusRow } from "../../design/types";
import { DocNumber, FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import type { Units } from "../../ui/units";
import { useUnits } from "../../ui/units";
import { useReference } from "../../design/reference";

const FIELDS = ["expansion_per_f", "compressibility_1_psi", "heat_share", "open_below_ft"];
const AMOUNT: Record<string, string> = { "rupture disk": "disk_psi", "compressible fluid": "share" };

export function Annuli({ rows }: { rows: readonly AnnulusRow[] }) {
  const several = useEvaluated((e) => e.strings.filter((s) => s.run === "cased").length > 1) ?? false;
  return (
    <div className="grid grid-cols-1 gap-y-4">
      {rows.length === 0 ? (
        <Empty>
          {several
            ? "Every annulus is cemented up to the wellhead: nothing is sealed in."
            : "No annulus follows yet: it needs strings, their cement and temperatures."}
        </Empty>
      ) : (
        <>
          <BuiltUp rows={rows} />
          <Relief rows={rows} />
        </>
      )}
      <section aria-label="Fluid">
        <Titled title="Fluid and heat" note="of policy">
          <FieldRow path="/site/flowing_wellhead_f" />
          {FIELDS.map((key) => (
            <FieldRow key={key} path={`/policy/sea/${key}`} />
          ))}
        </Titled>
      </section>
    </div>
  );
}

function BuiltUp({ rows }: { rows: readonly AnnulusRow[] }) {
  const units = useUnits();
  return (
    <section aria-label="Pressure built up">
      <Titled title="Pressure built up by heat" note="at the wellhead on the sea floor, all annuli together">
        <Facts
          label="Pressure built up in sealed annuli"
          heads={[
            { title: "Annulus" },
            { title: "Down to", unit: units.unit("depth") },
            { title: "Volume", unit: units.unit("volume") },
            { title: "Heated by", unit: units.unit("temperature_change") },
            { title: "Below", left: true },
            { title: "Builds up", unit: units.unit("pressure") },
            { title: "Inner sees", unit: units.unit("pressure") },
            { title: "collapses at", unit: units.unit("pressure") },
            { title: "Outer sees", unit: units.unit("pressure") },
            { title: "bursts at", unit: units.unit("pressure") },
          ]}
          rows={rows.map((row) => [
            units.words(row.what),
            units.number(row.bottom_md_ft, "depth"),
            units.number(row.volume_bbl, "volume"),
            units.number(row.heating_f, "temperature_change"),
            row.sealed === null ? "unknown" : row.sealed ? "sealed by cement" : "open at the shoe",
            row.pressure_psi === null ? (
              "unknown"
            ) : (
              <Headline key="p" working={row.working} title="pressure built up">
                {units.number(row.pressure_psi, "pressure")}
              </Headline>
            ),
            load(row, "collapse", row.collapse_load_psi, units),
            units.number(row.collapse_psi, "pressure"),
            load(row, "burst", row.burst_load_psi, units),
            units.number(row.burst_psi, "pressure"),
          ])}
        />
      </Titled>
      <p className="mt-1 text-[12px] text-mute">
        What each casing sees counts what builds up and stands on its other side; under 0 it is pressed the other way. The annulus around
        the tubing counts as bled off.
      </p>
    </section>
  );
}

/** What a casing sees; it opens into the columns on either side. */
function load(row: AnnulusRow, what: string, psi: number | null, units: Units) {
  return (
    <Headline key={what} working={`sea/annulus_loads/${row.string}`} title={`pressure on the casing, ${what}`}>
      {psi === null ? "unknown" : units.number(psi, "pressure")}
    </Headline>
  );
}

function Relief({ rows }: { rows: readonly AnnulusRow[] }) {
  const units = useUnits();
  const { session } = useBench();
  const options = useReference().at("/sea/annuli/*/relief").options;
  const held = useDocument((d) => d.sea.annuli);
  const ids = useDocument((d) => d.strings.map((s) => s.id).join(" ")).split(" ");
  const set = (id: string, relief: string) => {
    const at = held.findIndex((row) => row.string === id);
    const row = { string: id, relief, disk_psi: null, share: null };
    session.edit([at < 0 ? { path: "/sea/annuli", value: [...held, row] } : { path: `/sea/annuli/${at}`, value: row }]);
  };
  return (
    <section aria-label="Relief">
      <Titled title="What lets it go">
        {rows.map((row) => {
          const id = ids[row.string] ?? "";
          const at = held.findIndex((r) => r.string === id);
          const amount = AMOUNT[row.relief];
          return (
            <div
              key={row.string}
              className="grid grid-cols-[1fr_11rem_6rem_3rem] items-center gap-x-2 border-b border-rule/60 py-0.5 text-[12.5px]"
            >
              <span>{units.words(row.what)}</span>
              <select
                className="rounded border border-rule bg-sheet px-1"
                aria-label={`Relief of the annulus ${units.words(row.what)}`}
                data-place={at < 0 ? `/sea/annuli/new/${id}` : `/sea/annuli/${at}/relief`}
                value={row.relief}
                disabled={id === ""}
                onChange={(event) => {
                  set(id, event.target.value);
                }}
              >
                {options.map((option) => (
                  <option key={option}>{option}</option>
                ))}
              </select>
              {amount !== undefined && at >= 0 ? <DocNumber path={`/sea/annuli/${at}/${amount}`} /> : <span />}
              <span className="text-mute">{amount === "disk_psi" ? units.unit("pressure") : ""}</span>
            </div>
          );
        })}
      </Titled>
    </section>
  );
}
