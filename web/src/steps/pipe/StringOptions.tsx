// What else is decided of a string's pipe: wear, tests, what is produced or pumped through it, and cases of one's own.
import { useQuery } from "@tanstack/react-query";
import { getCatalogue } from "../../design/api";
import { editString, useBench, useSnapshot } from "../../design/context";
import { Choice } from "../../ui/Field";
import { DocCheck, DocNumber } from "../../ui/DocField";
import { Grid } from "../../ui/grid/Grid";
import type { GridColumn } from "../../ui/grid/columns";
import { useUnits } from "../../ui/units";

const LOADS: readonly GridColumn[] = [
  { key: "name", label: "Case", kind: "text", width: "24%" },
  { key: "kind", label: "Tries", kind: "choice", options: ["burst", "collapse"] },
  { key: "inside_psi", label: "In, top", kind: "number", quantity: "pressure" },
  { key: "inside_ppg", label: "In, fluid", kind: "number", quantity: "emw" },
  { key: "inside_level_md_ft", label: "Level", kind: "number", quantity: "depth" },
  { key: "outside_psi", label: "Out, top", kind: "number", quantity: "pressure" },
  { key: "outside_ppg", label: "Out, fluid", kind: "number", quantity: "emw" },
];

export function StringOptions({ index, size }: { index: number; size: string }) {
  const units = useUnits();
  const string = useSnapshot("evaluation")!.strings[index]!;
  const last = useSnapshot("evaluation")!.strings.length - 1 === index;
  const { session } = useBench();
  const { data: catalogue } = useQuery({ queryKey: ["catalogue"], queryFn: getCatalogue, staleTime: Infinity });
  const held = useSnapshot("document").strings[index]?.connection ?? null;
  const entries = [
    { label: "Pressure test", key: "test_psi", quantity: "pressure" as const },
    { label: "Treating pressure", key: "stimulation_psi", quantity: "pressure" as const },
    { label: "Packer at", key: "packer_md_ft", quantity: "depth" as const },
  ];
  return (
    <details className="text-[12px]">
      <summary className="text-mute">Wear, tests, production, own cases</summary>
      <div className="grid grid-cols-[1fr_5rem_2.6rem] items-center gap-x-1">
        <span>Wall worn away</span>
        <DocNumber label={`${size} wear`} path={`/strings/${index}/wear_percent`} quantity="factor" proposed={0} />
        <span className="text-mute">%</span>
        {entries
          .filter((e) => last || e.key === "test_psi")
          .map((entry) => (
            <span key={entry.key} className="contents">
              <span>{entry.label}</span>
              <DocNumber label={`${size} ${entry.label.toLowerCase()}`} path={`/strings/${index}/${entry.key}`} quantity={entry.quantity} optional />
              <span className="text-mute">{units.unit(entry.quantity)}</span>
            </span>
          ))}
        <span>Choose only connection</span>
        <span className="col-span-2">
          <Choice
            label={`${size} connection to choose`}
            place={`/strings/${index}/connection`}
            value={held ?? ""}
            decided={held !== null}
            options={[{ value: "", text: "by policy" }, ...(catalogue?.connections ?? []).map((c) => ({ value: c.connection, text: c.connection }))]}
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
        sortBy="name"
        newRow={(rows) => ({ name: `case ${rows.length + 1}`, kind: "burst", inside_psi: 1000, inside_ppg: 8.6, inside_level_md_ft: 0, outside_psi: 0, outside_ppg: 8.33 })}
        empty="No case of your own."
      />
    </details>
  );
}
