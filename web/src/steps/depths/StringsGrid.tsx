// All strings as one table: the decisions of steps two to four, typed or pasted like a spreadsheet.
import { adoption, useSnapshot } from "../../design/context";
import type { ColumnSpec, Row } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";

const COLUMNS: readonly ColumnSpec[] = [
  { key: "role", width: "22%" },
  { key: "run", label: "Run", width: "13%" },
  "hanger_md_ft",
  "shoe_md_ft",
  { key: "bit_in", label: "Hole" },
  { key: "od_in", label: "Casing" },
  { key: "mud_ppg", label: "Mud" },
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
