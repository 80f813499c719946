// The pieces from the head up: typed from the supplier's drawing once they are decided; their faces, studs and pressures.
import { useBench, useEvaluated } from "../../design/context";
import { freshId } from "../../design/ids";
import type { PieceResult, WellheadResult } from "../../design/types";
import { Button } from "../../ui/Button";
import { Facts } from "../../ui/Facts";
import type { ColumnSpec } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";
import { Headline } from "../../ui/Headline";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

const PATH = "/wellhead/pieces";
const HEIGHTS: readonly ColumnSpec[] = [
  "kind",
  { key: "height_in", label: "Height" },
  { key: "gap_in", label: "Gap" },
  { key: "bore_in", label: "Bore" },
  { key: "top_psi", label: "Class" },
];
const FACES: readonly ColumnSpec[] = [
  "name",
  { key: "bottom_bore_in", label: "Bottom bore" },
  { key: "bottom_psi", label: "Bottom" },
  { key: "wear_bushing_in", label: "Wear bushing" },
  "outlets",
];
const BOWLS: readonly ColumnSpec[] = [
  { key: "bowls", label: "Bowls" },
  { key: "bowl_depth_in", label: "Bowl below" },
  { key: "bowl_lbf", label: "Capacity" },
  { key: "seal_in", label: "Seal" },
  { key: "weight_lbf", label: "Weight" },
];

export function Pieces({ head }: { head: WellheadResult }) {
  const { session } = useBench();
  const decide = () => {
    session.edit([{ path: PATH, value: head.decided ? [] : head.pieces.map(decided) }]);
  };
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <div>
        <Button onClick={decide}>{head.decided ? "Back to the proposal" : "Decide these pieces"}</Button>
        {!head.decided && (
          <p className="mt-1 text-[12px] text-mute">
            Proposed: heights and gaps are planning values. Decide the pieces to type those of the supplier&apos;s drawing.
          </p>
        )}
      </div>
      {head.decided && <TypedPieces />}
      <Faces head={head} />
    </div>
  );
}

/** A proposed piece as a decision. */
function decided(piece: PieceResult) {
  return {
    id: freshId(PATH),
    name: piece.name,
    kind: piece.kind,
    string: piece.string_id,
    height_in: piece.height_in,
    gap_in: piece.gap_in,
    bore_in: piece.bore_in,
    bottom_bore_in: piece.bottom_bore_in,
    bottom_psi: piece.bottom_psi,
    top_psi: piece.top_psi,
    bowls: piece.bowls,
    outlets: piece.outlets,
  };
}

const ROW = { name: "", kind: null, string: null, height_in: 24, gap_in: 0.19, bore_in: 11, top_psi: 5000, bowls: 1, outlets: 2 };

/** The pieces as the document holds them, whether it can be evaluated or not. */
export function TypedPieces() {
  const shared = { target: "pieces" as const, path: PATH, sortBy: null, movable: true, newRow: () => ({ ...ROW }), empty: "No piece yet." };
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <Titled title="Pieces, bottom to top">
        <Grid title="Pieces, bottom to top" className="font-narrow" columns={HEIGHTS} {...shared} />
      </Titled>
      <Titled title="Faces" note="empty: that of the face under it">
        <Grid title="Faces of the pieces" className="font-narrow" columns={FACES} second {...shared} />
      </Titled>
      <Titled title="Bowls and seals" note="empty: planning values">
        <Grid title="Bowls and seals of the pieces" className="font-narrow" columns={BOWLS} second {...shared} />
      </Titled>
    </div>
  );
}

function Faces({ head }: { head: WellheadResult }) {
  const units = useUnits();
  const strings = useEvaluated((e) => e.strings) ?? [];
  const rows = [...head.pieces].reverse();
  const pressure = (piece: PieceResult) => {
    const at = strings.findIndex((s) => s.id === piece.string_id);
    const text = units.number(piece.needed_psi, "pressure");
    if (piece.needed_psi === null || at < 0) return text;
    return (
      <Headline working={`wellhead/${at}/surface_pressure`} title={`surface pressure, ${piece.name}`}>
        {text}
      </Headline>
    );
  };
  return (
    <section aria-label="Faces">
      <h3 className="mb-0.5 text-[13px] font-semibold">Faces, top to bottom</h3>
      <Facts
        label="Faces of the wellhead, top to bottom"
        heads={[
          { title: "Piece" },
          { title: "Top face", left: true },
          { title: "Class", unit: units.unit("pressure") },
          { title: "Greatest", unit: units.unit("pressure") },
        ]}
        bad={(r) => (rows[r]!.needed_psi ?? 0) > rows[r]!.top_psi}
        rows={rows.map((piece) => [
          <Name key="n" piece={piece} />,
          <Face key="f" piece={piece} />,
          units.number(piece.top_psi, "pressure"),
          pressure(piece),
        ])}
      />
      <Stages head={head} />
    </section>
  );
}

function Name({ piece }: { piece: PieceResult }) {
  return (
    <span data-place={piece.place}>
      {piece.name}
      {piece.bottom_in !== null && piece.bottom_flange !== null && (
        <span className="block text-[11.5px] text-mute">on {piece.bottom_flange}</span>
      )}
    </span>
  );
}

function Face({ piece }: { piece: PieceResult }) {
  return piece.flange === null ? (
    <span className="text-mute">no API 6A face</span>
  ) : (
    <span>
      {piece.flange}
      <span className="block text-[11.5px] text-mute">{piece.studs}</span>
    </span>
  );
}

/** What each face sees through the life of its string. */
function Stages({ head }: { head: WellheadResult }) {
  const units = useUnits();
  const rows = [...head.pieces].reverse().flatMap((piece) => piece.stages.map((stage) => ({ piece, stage })));
  return (
    <details className="mt-2 text-[12.5px]">
      <summary className="cursor-pointer text-mute">Surface pressure by stage of life</summary>
      <Facts
        label="Surface pressure by stage of life"
        heads={[{ title: "Piece" }, { title: "Stage", left: true }, { title: "Pressure", unit: units.unit("pressure") }]}
        rows={rows.map(({ piece, stage }) => [piece.name, stage.stage, units.number(stage.psi, "pressure")])}
      />
    </details>
  );
}
