// The riser: joints aboard and in the string, what pulls it, and the tension that each section's mud asks.
import { useDocument, useEvaluated } from "../../design/context";
import { useReference } from "../../design/reference";
import type { RiserString } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { Outcome } from "../../ui/Outcome";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { RiserPicture } from "./RiserPicture";

const PULL = ["tensioners", "tensioner_lbf", "failed", "setting_lbf", "package_lbf"];

export function Riser({ found }: { found: RiserString | null }) {
  return (
    <div className="flex gap-5">
      {found !== null && <RiserPicture found={found} />}
      <div className="grid min-w-0 flex-1 grid-cols-1 content-start gap-y-4">
        {found === null ? (
          <Empty>No riser follows yet: it hangs on the stack that stands on the sea floor.</Empty>
        ) : (
          <Tensions found={found} />
        )}
        <Joints found={found} />
        <Schedule />
        <Fields found={found} />
      </div>
    </div>
  );
}

function Tensions({ found }: { found: RiserString }) {
  const units = useUnits();
  const most = found.may_set_lbf;
  const bad = (r: number) => {
    const row = found.tensions[r]!;
    return row.set_lbf !== null && ((row.least_failed_lbf ?? 0) > row.set_lbf || (most !== null && row.set_lbf > most));
  };
  return (
    <section aria-label="Tension">
      <Titled title="Tension at the ring" note={`${found.failed} of ${found.tensioners ?? "–"} tensioners lost`}>
        <Facts
          label="Riser tension by section"
          heads={[
            { title: "Section to" },
            { title: "Mud", unit: units.unit("emw") },
            { title: "Least", unit: units.unit("force") },
            { title: "With those lost", unit: units.unit("force") },
            { title: "Set", unit: units.unit("force") },
            { title: "Left for the package", unit: units.unit("force") },
          ]}
          bad={bad}
          rows={found.tensions.map((row) => [
            units.words(row.what),
            units.number(row.mud_ppg, "emw"),
            units.number(row.least_lbf, "force"),
            <Headline key="t" working={row.working} title="least tension of the riser">
              {row.least_failed_lbf === null ? "unknown" : units.number(row.least_failed_lbf, "force")}
            </Headline>,
            units.number(row.set_lbf, "force"),
            units.number(row.package_lbf, "force"),
          ])}
        />
      </Titled>
      <div className="mt-2">
        <Outcome label="Most that may be set" value={most} quantity="force" />
        <Outcome label="Mud to fill it" value={found.tensions[0]?.fill_bbl} quantity="volume" />
        <Outcome
          label="To run it with the stack"
          value={found.hours}
          quantity="hours"
          note={`${found.tests} tests of the lines on the way`}
        />
      </div>
    </section>
  );
}

/** What the riser adds to the days of the well. */
function Schedule() {
  const units = useUnits();
  const rows = useEvaluated((e) => e.sea.schedule) ?? [];
  if (rows.length === 0) return null;
  return (
    <section aria-label="Schedule of the riser">
      <Titled title="Schedule of the riser" note={`${(rows.at(-1)!.total_hours / 24).toFixed(1)} days in all, waiting on weather apart`}>
        <Facts
          label="Schedule of the riser"
          heads={[
            { title: "Work", left: true },
            { title: "Takes", unit: units.unit("hours") },
            { title: "All so far", unit: units.unit("hours") },
          ]}
          rows={rows.map((row) => [row.work, units.number(row.hours, "hours"), units.number(row.total_hours, "hours")])}
        />
      </Titled>
    </section>
  );
}

function Joints({ found }: { found: RiserString | null }) {
  const units = useUnits();
  const typed = useDocument((d) => d.sea.riser.joints.length > 0);
  const rows = found?.joints ?? [];
  return (
    <section aria-label="Riser joints">
      <Titled title="Riser joints" note={typed ? "in the order in which they are used, pups last" : undefined}>
        <Grid
          title="Riser joints"
          target="riser_joints"
          path="/sea/riser/joints"
          className="font-narrow"
          columns={[
            "name",
            "length_ft",
            "aboard",
            { key: "wet_lbf", label: "In water" },
            { key: "lift_lbf", label: "Lift" },
            { key: "run", label: "Run" },
          ]}
          told={
            typed ? [{ label: "Stands", unit: "", px: 52, cell: (i) => (rows[i] === undefined ? "–" : String(rows[i].count)) }] : undefined
          }
          sortBy={null}
          movable
          newRow={() => ({ name: "Joint", length_ft: 75, aboard: 10, wet_lbf: 23_000, lift_lbf: 0, run: null })}
          empty="Generic joints are planned with; give those aboard."
        />
      </Titled>
      {!typed && found !== null && (
        <Facts
          label="Generic joints in the string"
          heads={[{ title: "Planned with" }, { title: "Length", unit: units.unit("length") }, { title: "Stand" }]}
          rows={rows.filter((row) => row.count > 0).map((row) => [row.name, units.number(row.length_ft, "length"), row.count])}
        />
      )}
      {found !== null && (
        <div className="mt-2">
          <Outcome label="Space between telescopic joint and flex joint" value={found.space_ft} quantity="length" />
          <Outcome label="Joints made up" value={found.made_ft} quantity="length" />
          <Outcome
            label={found.off_ft < 0 ? "Telescopic joint pulled out of mid-stroke" : "Telescopic joint pushed into mid-stroke"}
            value={Math.abs(found.off_ft)}
            quantity="length"
          />
        </div>
      )}
    </section>
  );
}

function Fields({ found }: { found: RiserString | null }) {
  const keys = useReference()
    .keys("/sea/riser")
    .filter((key) => key !== "joints");
  const policy = useDocument((d) => d.policy.sea);
  const stack = useEvaluated((e) => (e.sea.riser == null ? null : e.sea.riser.housing_md_ft - e.sea.riser.stack_top_md_ft));
  const proposed: Record<string, number | null | undefined> = {
    failed: policy?.failed,
    package_lbf: policy?.package_lbf,
    setting_lbf: found === null ? null : Math.max(0, ...found.tensions.map((row) => row.set_lbf ?? 0)) || null,
    stack_ft: stack,
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-6 gap-y-4 max-[1180px]:grid-cols-1">
      {[PULL, keys.filter((key) => !PULL.includes(key))].map((part, i) => (
        <section key={i} aria-label={i === 0 ? "What pulls" : "From the rotary to the stack"}>
          <Titled title={i === 0 ? "What pulls" : "From the rotary to the stack"}>
            {part.map((key) => (
              <FieldRow key={key} path={`/sea/riser/${key}`} proposed={proposed[key]} />
            ))}
          </Titled>
        </section>
      ))}
    </div>
  );
}
