// All strings as one table: the decisions of steps two to four, typed or pasted like a spreadsheet.
import { adoption, useSnapshot } from "../../design/context";
import type { GridColumn, Row } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";

const COLUMNS: readonly GridColumn[] = [
  { key: "role", label: "Role", kind: "choice", options: ["conductor", "surface", "intermediate", "production"], width: "22%" },
  { key: "run", label: "Run", kind: "choice", options: ["driven", "jetted", "cased", "liner"], width: "13%" },
  { key: "hanger_md_ft", label: "Liner top", kind: "number", quantity: "depth", optional: true },
  { key: "shoe_md_ft", label: "Shoe", kind: "number", quantity: "depth" },
  { key: "bit_in", label: "Hole", kind: "number", quantity: "size", optional: true },
  { key: "od_in", label: "Casing", kind: "number", quantity: "size", optional: true },
  { key: "mud_ppg", label: "Mud", kind: "number", quantity: "emw", optional: true },
];

const newString = (rows: readonly Row[]): Row => ({
  role: rows.length === 0 ? "conductor" : "intermediate",
  run: rows.length === 0 ? "driven" : "cased",
  shoe_md_ft: rows.length === 0 ? 120 : Number(rows[rows.length - 1]!.shoe_md_ft) + 1000,
});

export function StringsGrid() {
  const document = useSnapshot("document");
  const evaluation = useSnapshot("evaluation");
  const proposed = adoption(document, evaluation)[0]?.value as Row[] | undefined;
  return (
    <>
      {proposed && <p className="mb-2 text-[12px] text-mute">Proposed from the bottom up. The first edit adopts all of it.</p>}
      <Grid
        title="Strings"
        className="font-narrow"
        target="strings"
        path="/strings"
        columns={COLUMNS}
        sortBy="shoe_md_ft"
        newRow={newString}
        empty="No string yet. Give the ground its profiles and a program is proposed, or type one."
        rows={proposed}
      />
    </>
  );
}
