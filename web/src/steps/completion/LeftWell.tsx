// A well that is left, suspended or abandoned: what is to be isolated, and each plug with its volumes, tests and whether it counts.
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { LeavingRow, LeftPlug } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Button } from "../../ui/Button";
import { Facts } from "../../ui/Facts";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { NEW_PLUG } from "../cement/newPlug";
import type { Way } from "./shownState";

const WORDS = { suspension: "suspend", abandonment: "plug and abandon" } as const;

export function LeftWell({ way }: { way: Way }) {
  const { session } = useBench();
  const row = useEvaluated((e) => e.completion[way]);
  const decided = useDocument((d) => d.completion.decision) === WORDS[way];
  if (row == null) return <Empty>Nothing follows yet: the well needs its strings.</Empty>;
  const path = `/completion/${way}`;
  return (
    <div className="grid grid-cols-1 gap-y-4">
      {!decided && (
        <p className="text-[12.5px] text-mute">Not what is decided at total depth: it is worked beside it, and nothing of it is told.</p>
      )}
      <Needs row={row} />
      <section aria-label="Plugs">
        <Titled title="Plugs" note={row.proposed ? "proposed by policy, from the bottom up" : "decided, in the order they are set"}>
          <Plugs row={row} way={way} />
          {row.proposed ? (
            <Button
              className="mt-1"
              onClick={() => {
                session.edit([{ path: `${path}/plugs`, value: row.proposal }]);
              }}
            >
              {row.proposal.length === 1 ? "Take the proposed plug" : `Take the ${row.proposal.length} proposed plugs`}
            </Button>
          ) : (
            <>
              <Grid
                title="Plugs as decided"
                className="font-narrow mt-2"
                target={`${way}_plugs`}
                path={`${path}/plugs`}
                columns={[
                  "name",
                  { key: "inside", label: "Inside" },
                  { key: "top_md_ft", label: "Top" },
                  { key: "bottom_md_ft", label: "Bottom" },
                  { key: "base", label: "Stands on" },
                  { key: "verify", label: "Verified by" },
                  { key: "spacer_bbl", label: "Spacer" },
                ]}
                sortBy={null}
                movable
                newRow={(given) => {
                  const bottom = Number(given[given.length - 1]?.top_md_ft ?? 1000);
                  return { ...NEW_PLUG, ...HOW_LEFT, inside: "casing", bottom_md_ft: bottom, top_md_ft: Math.max(bottom - 200, 0) };
                }}
                empty="No plug."
              />
              <Button
                className="mt-1"
                onClick={() => {
                  session.edit([{ path: `${path}/plugs`, value: [] }]);
                }}
              >
                Leave them to the proposal
              </Button>
            </>
          )}
        </Titled>
      </section>
      <div className="grid grid-cols-2 gap-x-6 max-[1180px]:grid-cols-1">
        <Titled title="How it is left">
          <FieldRow path={`${path}/production`} />
          <FieldRow path={`${path}/perforated`} />
          <FieldRow path={`${path}/mud_ppg`} proposed={row.mud_ppg} />
          {way === "abandonment" && <FieldRow path={`${path}/cut_ft`} proposed={row.cut_below_ft} />}
        </Titled>
        <Titled title="Policy">
          {["above_ft", "below_ft", "mechanical_ft", "surface_ft", "longest_ft", "plug_test_psi", "tag_lbf"].map((key) => (
            <FieldRow key={key} path={`/policy/completion/${key}`} />
          ))}
        </Titled>
      </div>
      <p className="text-[11.5px] text-mute">
        A planning calculation. Local rules say which zones are isolated, how long plugs are, how they are verified and how deep the casing
        is cut; a competent engineer checks it.
      </p>
    </div>
  );
}

const HOW_LEFT = { base: "none", verify: "tag and pressure test" };

function Needs({ row }: { row: LeavingRow }) {
  const units = useUnits();
  return (
    <section aria-label="To isolate">
      <Titled
        title="To isolate"
        note={row.production_run ? "with the production string run" : "open hole below the last casing: the production string is not run"}
      >
        <Facts
          label="What is to be isolated"
          heads={[
            { title: "What" },
            { title: "Cement from", unit: units.unit("depth") },
            { title: "To", unit: units.unit("depth") },
            { title: "By plugs", left: true },
          ]}
          bad={(r) => !row.needs[r]!.covered}
          rows={row.needs.map((need) => [
            units.words(need.what),
            units.number(need.top_md_ft, "depth"),
            units.number(need.bottom_md_ft, "depth"),
            need.covered ? "covered" : "not covered",
          ])}
        />
      </Titled>
    </section>
  );
}

const COUNTS = { stands: "a barrier", fails: "no barrier", unknown: "not known" } as const;

function Plugs({ row, way }: { row: LeavingRow; way: Way }) {
  const units = useUnits();
  const verified = (p: LeftPlug) =>
    [p.verify, p.tag_lbf === null ? "" : units.text(p.tag_lbf, "force"), p.test_psi === null ? "" : units.text(p.test_psi, "pressure")]
      .filter(Boolean)
      .join(", ");
  return (
    <Facts
      label={`Plugs of the ${way}`}
      heads={[
        { title: "Plug" },
        { title: "Top", unit: units.unit("depth") },
        { title: "Bottom", unit: units.unit("depth") },
        { title: "Slurry", unit: units.unit("volume") },
        { title: "Sacks" },
        { title: "Displace", unit: units.unit("volume") },
        { title: "Verified by", left: true },
        { title: "Counts as", left: true },
      ]}
      rows={row.plugs.map((p, k) => [
        `${p.name}${p.base === "none" ? "" : `, on a ${p.base}`}`,
        units.number(p.top_md_ft, "depth"),
        units.number(p.bottom_md_ft, "depth"),
        p.volumes === null ? "unknown" : units.number(p.volumes.slurry_bbl, "volume"),
        p.volumes === null ? "–" : units.number(p.volumes.sacks, "sacks"),
        p.volumes === null ? (
          "–"
        ) : (
          <Headline key="d" working={`completion/${way}/plug${k}`} title={`displacement of ${p.name}`}>
            {units.number(p.volumes.displacement_bbl, "volume")}
          </Headline>
        ),
        verified(p),
        p.why.length === 0 ? COUNTS[p.counts] : `${COUNTS[p.counts]}: ${units.words(p.why)}`,
      ])}
    />
  );
}
