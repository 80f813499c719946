// All strings as one table: the decisions of steps two to four, typed or pasted like a spreadsheet.
import { adoption, useSnapshot } from "../../design/context";
import type { ColumnSpec, Row } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";

const COLUMNS: readonly ColumnSpec[] = [
  "role",
  { key: "run", label: "Run" },
  "hanger_md_ft",
  "shoe_md_ft",
  { key: "bit_in", label: "Hole" },
  { key: "od_in", label: "Casing" },
  { key: "mud_ppg", label: "Mud" },
];

/** A string goes in above the last, midway down to it: the last ends at total depth. */
const beforeLast = (rows: readonly Row[]) => Math.max(0, rows.length - (rows.length > 1 ? 1 : 0));

const newString = (rows: readonly Row[]): Row => {
  if (rows.length === 0) return { role: "conductor", run: "driven", shoe_md_ft: 120 };
  const last = Number(rows[rows.length - 1]!.shoe_md_ft);
  if (rows.length === 1) return { role: "production", run: "cased", shoe_md_ft: last + 1000 };
  const above = Number(rows[rows.length - 2]!.shoe_md_ft);
  return { role: "intermediate", run: "cased", shoe_md_ft: Math.round((above + last) / 20) * 10 };
};

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
        sortBy={null}
        depthKey="shoe_md_ft"
        insertAt={beforeLast}
        newRow={newString}
        empty="No string yet. Enter pore pressure and fracture gradient on Ground for a proposal, or add strings here."
        rows={proposed}
      />
    </>
  );
}
