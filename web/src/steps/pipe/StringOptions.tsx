// What else is decided of a string's pipe: wear, tests, what is produced or pumped through it, and cases of one's own.
import { useQuery } from "@tanstack/react-query";
import { getCatalogue } from "../../design/api";
import { editString, useBench, useEvaluated, useSnapshot } from "../../design/context";
import { Choice } from "../../ui/Field";
import { useReference } from "../../design/reference";
import { DocCheck, DocNumber, FieldLabel, UnitOf } from "../../ui/DocField";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { useUnits } from "../../ui/units";
import type { ColumnSpec } from "../../ui/grid/columns";

const LOADS: readonly ColumnSpec[] = [
  "name",
  "kind",
  { key: "inside_psi", label: "In, top" },
  { key: "inside_ppg", label: "In, fluid" },
  { key: "inside_level_md_ft", label: "Level" },
  { key: "outside_psi", label: "Out, top" },
  { key: "outside_ppg", label: "Out, fluid" },
];

export function StringOptions({ index, size }: { index: number; size: string }) {
  const string = useSnapshot("evaluation")!.strings[index]!;
  const row = useEvaluated((e) => e.pipe.strings[index]);
  const proposed: Record<string, number | null | undefined> = { wear_percent: 0, test_psi: row?.test_psi && Math.round(row.test_psi) };
  const { session } = useBench();
  const { data: catalogue } = useQuery({ queryKey: ["catalogue"], queryFn: getCatalogue, staleTime: Infinity });
  const held = useSnapshot("document").strings[index]?.connection ?? null;
  const reference = useReference();
  const units = useUnits();
  const keys = ["wear_percent", "test_psi"];
  return (
    <details className="text-[12px]">
      <summary className="text-mute">Wear, tests, own cases</summary>
      <div className="grid grid-cols-[1fr_5rem_2.6rem] items-center gap-x-1">
        {keys.map((key) => {
          const path = `/strings/${index}/${key}`;
          return (
            <span key={key} className="contents">
              <FieldLabel path={path} />
              <DocNumber label={`${size} ${reference.at(path).title}`} path={path} proposed={proposed[key]} />
              <span className="text-mute">
                <UnitOf path={path} />
              </span>
            </span>
          );
        })}
        {row?.test_rig_psi != null && (
          <span className="contents">
            <span>Tested, read at the rig floor</span>
            <span className="text-right">
              <Headline working={`pipe/${index}/test`} title={`pressure test of ${size}`}>
                {units.number(row.test_rig_psi, "pressure")}
              </Headline>
            </span>
            <span className="text-mute">{units.unit("pressure")}</span>
          </span>
        )}
        <span>Choose only connection</span>
        <span className="col-span-2">
          <Choice
            label={`${size} connection to choose`}
            place={`/strings/${index}/connection`}
            value={held ?? ""}
            decided={held !== null}
            options={[
              { value: "", text: "by policy" },
              ...(catalogue?.connections ?? []).map((c) => ({ value: c.connection, text: c.connection })),
            ]}
            onCommit={(value) => {
              editString(session, index, "connection", value === "" ? null : value);
            }}
          />
        </span>
        {string.run === "liner" && (
          <>
            <span>Tied back to the wellhead</span>
            <span className="text-right">
              <DocCheck label={`${size} tied back`} path={`/strings/${index}/tie_back`} />
            </span>
            <span />
          </>
        )}
      </div>
      <Grid
        title={`Own load cases of ${size}`}
        target="loads"
        path={`/strings/${index}/loads`}
        columns={LOADS}
        sortBy={null}
        newRow={(rows) => ({
          name: `case ${rows.length + 1}`,
          kind: "burst",
          inside_psi: 1000,
          inside_ppg: 8.6,
          inside_level_md_ft: 0,
          outside_psi: 0,
          outside_ppg: 8.33,
        })}
        empty="No case of your own."
      />
    </details>
  );
}
