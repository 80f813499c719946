// The wellhead: pieces from the surface casing up, the class that each face needs, and the cut-off heights.
import { useBench, useSnapshot } from "../../design/context";
import { freshId } from "../../design/ids";
import { Button } from "../../ui/Button";
import { DocNumber, FieldRow } from "../../ui/DocField";
import { Headline } from "../../ui/Headline";
import { Empty, Panel, Scroll } from "../../ui/Panel";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";

export function WellheadBench() {
  const evaluation = useSnapshot("evaluation");
  const document = useSnapshot("document");
  const { session } = useBench();
  const head = evaluation?.wellhead;
  const decided = document.wellhead.pieces.length > 0;
  const decide = () => {
    const pieces = head!.pieces.map((p) => ({
      id: freshId("/wellhead/pieces"),
      string: p.string_id,
      name: p.string,
      height_in: p.height_in,
      bore_in: p.bore_in,
      bottom_psi: p.bottom_psi,
      top_psi: p.top_psi,
      gap_in: p.gap_in,
    }));
    session.edit([{ path: "/wellhead/pieces", value: pieces }]);
  };
  const action =
    head && head.pieces.length > 0 ? (
      <Button
        onClick={() => {
          if (decided) session.edit([{ path: "/wellhead/pieces", value: [] }]);
          else decide();
        }}
      >
        {decided ? "Back to the proposal" : "Decide these pieces"}
      </Button>
    ) : undefined;
  return (
    <Panel title="Wellhead" actions={action}>
      <Scroll label="Wellhead">
        {!head || head.pieces.length === 0 ? (
          <Empty>
            {head && !head.applies
              ? "Wellheads are worked for land wells; for this setting type the pieces in the well file."
              : "No wellhead follows yet: it needs strings, sizes and pressures."}
          </Empty>
        ) : (
          <>
            <Pieces decided={decided} />
            <Cuts />
          </>
        )}
      </Scroll>
    </Panel>
  );
}

function Pieces({ decided }: { decided: boolean }) {
  const evaluation = useSnapshot("evaluation");
  const units = useUnits();
  const pieces = evaluation!.wellhead.pieces;
  const drawn = pieces.map((piece, index) => ({ piece, index })).reverse();
  return (
    <table className="w-full border-collapse text-[12.5px]" aria-label="Wellhead pieces, top to bottom">
      <thead>
        <tr className="text-right text-[11.5px] text-mute">
          <th className="border-b border-rule text-left font-normal">Top to bottom</th>
          <th className="border-b border-rule px-1 text-left font-normal">
            <Term>Top flange</Term>
          </th>
          <th className="border-b border-rule px-1 font-normal">
            <Term>Bore</Term>, {units.unit("size")}
          </th>
          <th className="border-b border-rule px-1 font-normal">
            <Term>Class</Term>, {units.unit("pressure")}
          </th>
          <th className="border-b border-rule px-1 font-normal">
            <Term>Max. surface pressure</Term>, {units.unit("pressure")}
          </th>
          <th className="border-b border-rule px-1 font-normal">
            <Term>Height</Term>, {units.unit("height")}
          </th>
          <th className="border-b border-rule px-1 font-normal">
            <Term>Gap under</Term>, {units.unit("height")}
          </th>
        </tr>
      </thead>
      <tbody>
        {drawn.map(({ piece, index }) => {
          const path = `/wellhead/pieces/${index}`;
          const weak = piece.needed_psi !== null && piece.needed_psi > piece.top_psi;
          return (
            <tr key={index} className="border-b border-rule/60 text-right align-top">
              <th scope="row" className="py-0.5 text-left font-normal">
                {piece.string}
              </th>
              <td className="px-1 text-left" data-place={decided ? undefined : `${path}/top_psi`}>
                {piece.flange ?? <span className="text-mute">not in the catalogue</span>}
              </td>
              <td className="px-1 whitespace-nowrap">
                {decided ? <DocNumber label={`${piece.name} bore`} path={`${path}/bore_in`} /> : units.number(piece.bore_in, "size")}
              </td>
              <td className={`px-1 ${weak ? "text-brick" : ""}`}>
                {decided ? <DocNumber label={`${piece.name} class`} path={`${path}/top_psi`} /> : units.number(piece.top_psi, "pressure")}
              </td>
              <td className={`px-1 ${weak ? "font-semibold text-brick" : ""}`}>{units.number(piece.needed_psi, "pressure")}</td>
              <td className="px-1">
                {decided ? (
                  <DocNumber label={`${piece.name} height`} path={`${path}/height_in`} />
                ) : (
                  units.number(piece.height_in, "height")
                )}
              </td>
              <td className="px-1">
                {decided ? <DocNumber label={`${piece.name} gap`} path={`${path}/gap_in`} /> : units.number(piece.gap_in, "height")}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Cuts() {
  const evaluation = useSnapshot("evaluation");
  const units = useUnits();
  const head = evaluation!.wellhead;
  return (
    <section aria-label="Cut-off heights" className="mt-5 max-w-lg">
      <h3 className="mb-1 text-[13px] font-semibold">Cut-off heights above the cellar floor</h3>
      {["/site/cellar_depth_ft", "/wellhead/socket_depth_in", "/wellhead/base_plate_in"].map((path) => (
        <FieldRow key={path} path={path} />
      ))}
      {(
        [
          ["Surface casing cut", head.surface_cut_in],
          ["Conductor cut", head.conductor_cut_in],
        ] as const
      ).map(([label, value]) => (
        <div key={label} className="grid grid-cols-[1fr_5.5rem_3rem] items-center border-b border-rule/60 py-0.5 font-semibold">
          <span>
            <Term>{label}</Term>
          </span>
          <span className={`text-right pr-1 ${value !== null && value < 0 ? "text-brick" : ""}`}>
            {value === null ? (
              "unknown"
            ) : (
              <Headline working="wellhead/cut_off" title="cut-off heights">
                {units.number(value, "height")}
              </Headline>
            )}
          </span>
          <span className="pl-1.5 font-normal text-mute">{units.unit("height")}</span>
        </div>
      ))}
      <p className="mt-2 text-[12px] text-mute">
        The reference face, the top of the last piece, is at ground level. Proposed heights and gaps are planning values; decide the pieces
        to type those of the supplier&apos;s drawing.
      </p>
    </section>
  );
}
