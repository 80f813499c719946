// What the catalogue holds of a size: every weight, grade and connection with its ratings; a row is taken by a click.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { getPipes } from "../../design/api";
import { adoption, useBench, useSnapshot } from "../../design/context";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";

const HEAD = [
  ["Weight", "linear_weight"],
  ["Grade", null],
  ["Drift", "diameter"],
  ["Burst", "pressure"],
  ["Collapse", "pressure"],
  ["Joint", "force"],
] as const;

export function CatalogueTable({ index }: { index: number }) {
  const { session } = useBench();
  const units = useUnits();
  const string = useSnapshot("evaluation")?.strings[index];
  const row = useSnapshot("evaluation")?.pipe.strings[index];
  const odIn = string?.od_in ?? null;
  const [joint, setJoint] = useState("BTC");
  const { data } = useQuery({ queryKey: ["pipes", odIn], queryFn: () => getPipes(odIn!), enabled: odIn !== null, staleTime: Infinity });
  if (odIn === null || !data)
    return <Empty>{odIn === null ? "The size of the selected string is not known." : "Reading the catalogue…"}</Empty>;
  const joints = [...new Set(data.map((p) => p.connection))];
  const chosen = joints.includes(joint) ? joint : (joints[0] ?? "");
  const shown = data.filter((p) => p.connection === chosen);
  const now = row?.sections[0];
  const take = (piece: { weight_ppf: number; grade: string; connection: string }) => {
    const { document, evaluation } = session.snapshot();
    session.edit([
      ...adoption(document, evaluation),
      { path: `/strings/${index}/pipe`, value: { weight_ppf: piece.weight_ppf, grade: piece.grade, connection: piece.connection } },
      { path: `/strings/${index}/sections`, value: [] },
    ]);
  };
  return (
    <>
      <p className="mb-1 flex items-center gap-2 text-[12.5px]">
        {units.text(odIn, "size")} with
        <select
          aria-label="Connection shown"
          className="cell w-24 bg-sheet"
          value={chosen}
          onChange={(event) => {
            setJoint(event.target.value);
          }}
        >
          {joints.map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
        <span className="text-mute">{shown.length} rows</span>
      </p>
      <table className="w-full text-[11.5px]" aria-label={`Catalogue of ${units.text(odIn, "size")}`}>
        <thead>
          <tr className="text-mute">
            {HEAD.map(([name, quantity]) => (
              <th key={name} scope="col" className={`font-normal ${quantity === null ? "pl-3 text-left" : "text-right"}`}>
                {name}
                <br />
                {quantity === null ? "" : units.unit(quantity)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((p) => {
            const held = now?.weight_ppf === p.weight_ppf && now.grade === p.grade && now.connection === p.connection;
            return (
              <tr key={`${p.weight_ppf} ${p.grade}`} className={held ? "bg-petrol/10" : ""} title={p.source}>
                <td className="text-right">{units.number(p.weight_ppf, "linear_weight")}</td>
                <td className="pl-3">
                  <button
                    type="button"
                    className="hover:text-petrol"
                    title={`Use it for the whole string. ${p.source}`}
                    onClick={() => {
                      take(p);
                    }}
                  >
                    {p.grade}
                  </button>
                </td>
                <td className="text-right">{units.number(p.drift_in, "diameter")}</td>
                <td className="text-right">
                  {units.number(Math.min(p.burst_psi, p.coupling_psi ?? p.burst_psi, p.leak_psi ?? p.burst_psi), "pressure")}
                </td>
                <td className="text-right">{units.number(p.collapse_psi, "pressure")}</td>
                <td className="text-right">{units.number(p.joint_lbf === null ? null : Math.min(p.joint_lbf, p.body_lbf), "force")}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-1 text-[12px] text-mute">
        New and cold: burst is the least of body, coupling and leak, joint the lesser of joint and body. A grade clicked is used. Each row
        names its source.
      </p>
    </>
  );
}
