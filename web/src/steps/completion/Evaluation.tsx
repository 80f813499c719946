// What is learnt of each section before it is cased, and logged pressures, which become points of the profile when asked.
import { Check } from "lucide-react";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import { Button } from "../../ui/Button";
import { Facts } from "../../ui/Facts";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

const USUAL_FT = 500;

export function Evaluation() {
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <Surveys />
      <Pressures />
    </div>
  );
}

function Surveys() {
  const units = useUnits();
  const rows = useEvaluated((e) => e.completion.surveys) ?? [];
  const total = useEvaluated((e) => e.basis.total_md_ft) ?? 0;
  const hours = rows.reduce((sum, row) => sum + row.hours, 0);
  const told = [
    { label: "Section", unit: "", px: 92, left: true, cell: (i: number) => (rows[i] ? units.words(rows[i].section) || "none" : "–") },
    {
      label: "By policy",
      unit: "h",
      px: 52,
      cell: (i: number) => (rows[i] && !rows[i].given ? units.number(rows[i].hours, "hours") : "–"),
    },
  ];
  return (
    <section aria-label="Evaluation plan">
      <Titled title="Evaluation, section by section" note={`${units.text(hours, "hours")} of rig time; done before the section is cased`}>
        <Grid
          title="Evaluation"
          className="font-narrow"
          target="evaluation"
          path="/completion/evaluation"
          columns={[
            "kind",
            "name",
            { key: "from_md_ft", label: "From" },
            { key: "to_md_ft", label: "To" },
            "decides",
            { key: "hours", label: "Rig time" },
          ]}
          told={told}
          sortBy={null}
          movable
          newRow={(given) => {
            const from = Number(given[given.length - 1]?.to_md_ft ?? Math.max(Math.round(total) - USUAL_FT, 0));
            const base = { kind: "wireline logs", name: "", decides: "casing point", hours: null };
            return { ...base, from_md_ft: Math.min(from, total - 10), to_md_ft: Math.min(from + USUAL_FT, total) };
          }}
          empty="Nothing is planned to be learnt: cuttings, cores, logs, pressure points and tests stand here."
        />
      </Titled>
    </section>
  );
}

function Pressures() {
  const units = useUnits();
  const { session } = useBench();
  const rows = useEvaluated((e) => e.completion.points) ?? [];
  const points = useDocument((d) => d.completion.pressure_points) ?? [];
  const total = useEvaluated((e) => e.basis.total_md_ft) ?? 0;
  return (
    <section aria-label="Logged pressures">
      <Titled title="Logged pressures" note="beside the pore pressure profile">
        <Grid
          title="Logged pressures"
          className="font-narrow"
          target="pressure_points"
          path="/completion/pressure_points"
          columns={["md_ft", "psi", "source", "date"]}
          sortBy="md_ft"
          newRow={(given) => ({
            ...{ md_ft: Number(given[given.length - 1]?.md_ft ?? Math.round(total * 0.8)), psi: 0, source: "", date: "" },
          })}
          empty="No pressure has been logged."
        />
        {points.length > 0 && rows.length === points.length && (
          <Facts
            label="Logged pressures beside the profile"
            heads={[
              { title: "Point" },
              { title: "TVD", unit: units.unit("depth") },
              { title: "Measured", unit: units.unit("emw") },
              { title: "Profile", unit: units.unit("emw") },
              { title: "In the profile", left: true },
            ]}
            rows={rows.map((row, i) => [
              points[i]!.source || `${units.text(points[i]!.md_ft, "depth")} MD`,
              units.number(row.tvd_ft, "depth"),
              <Headline key="m" working={row.working} title="equivalent weight of the logged pressure">
                {units.number(row.emw_ppg, "emw")}
              </Headline>,
              row.profile_ppg === null ? "none" : units.number(row.profile_ppg, "emw"),
              row.in_profile ? (
                <span key="a" className="inline-flex items-center gap-1 text-moss">
                  <Check size={13} aria-hidden /> in the profile
                </span>
              ) : (
                <Button
                  key="a"
                  onClick={() => {
                    session.edit([...row.changes]);
                  }}
                >
                  Take into the profile
                </Button>
              ),
            ])}
          />
        )}
      </Titled>
    </section>
  );
}
