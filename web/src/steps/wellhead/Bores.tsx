// What must pass the wellhead: bits, casing over its couplings, a packer; each against the bore of the piece.
import type { WellheadResult, Words } from "../../design/types";
import { Facts } from "../../ui/Facts";
import { useUnits } from "../../ui/units";

export function Bores({ head }: { head: WellheadResult }) {
  const units = useUnits();
  return (
    <Facts
      label="What passes the wellhead"
      heads={[
        { title: "Piece" },
        { title: "What passes", left: true },
        { title: "OD", unit: units.unit("size") },
        { title: "Bore", unit: units.unit("size") },
        { title: "Passes" },
      ]}
      bad={(r) => !head.passing[r]!.passes}
      rows={head.passing.map((row, r) => [
        head.passing[r - 1]?.piece === row.piece ? (
          <span className="sr-only">{head.pieces[row.piece]!.name}</span>
        ) : (
          head.pieces[row.piece]!.name
        ),
        units.words(row.what as Words),
        units.number(row.od_in, "size"),
        units.number(row.bore_in, "size"),
        row.passes ? "yes" : "no",
      ])}
    />
  );
}
