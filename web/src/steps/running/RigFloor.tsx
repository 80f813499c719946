// The rig floor's list: what is picked up, what it carries, its torque, when to fill, and where the shoe is after it.
import type { RunningRow, TallyDetail } from "../../design/types";
import { useUnits } from "../../ui/units";
import { Waiting } from "./parts";
import { RackLinks } from "./RackLinks";

const CAUTION =
  "Drift and count every joint; two people check the tally. Lines of tongs and elevators clear of people; nobody under the load. Results are checked by a competent engineer, and local rules prevail.";

export function RigFloor({ run, row }: { run: TallyDetail | undefined; row: RunningRow }) {
  const units = useUnits();
  if (run === undefined) return <Waiting />;
  const torque = (value: number | null) => (value === null ? "" : units.number(value, "torque"));
  return (
    <>
      <p className="mb-2 max-w-prose text-[12px] text-mute">{CAUTION}</p>
      <RackLinks />
      <table className="mt-2 w-full border-collapse font-narrow text-[12.5px]" aria-label="Joints as they are picked up">
        <thead>
          <tr className="text-right text-[11.5px] text-mute">
            {[
              ["Joint", ""],
              ["Measured", units.unit("length")],
              ["Connection", ""],
              ["Torque", units.unit("torque")],
              ["Carries", ""],
              ["Fill", units.unit("volume")],
              ["Shoe at", units.unit("depth")],
              ["Speed up to", units.unit("trip_speed")],
            ].map(([title, unit], k) => (
              <th
                key={title}
                className={`sticky top-0 border-b border-rule bg-paper px-1 align-bottom font-normal ${k === 2 || k === 4 ? "text-left" : ""}`}
              >
                {title}
                <span className="block">{unit}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {run.joints.map((j) => (
            <tr key={j.number} className={`border-b border-rule/60 text-right ${j.fill ? "bg-petrol/8" : ""}`}>
              <td className="px-1">{j.number}</td>
              <td className="px-1">{units.number(j.length_ft, "length")}</td>
              <td className="px-1 text-left">{j.connection}</td>
              <td className="px-1">{torque(j.torque_ft_lbf)}</td>
              <td className="px-1 text-left">
                {[
                  ...(j.kind === "joint" ? [] : [j.kind]),
                  ...j.carries,
                  ...(j.centralizers > 0 ? [j.centralizers > 1 ? `${j.centralizers} centralizers` : "centralizer"] : []),
                ].join(", ")}
              </td>
              <td className="px-1">{j.fill_bbl === null ? "" : units.number(j.fill_bbl, "volume")}</td>
              <td className="px-1">{units.number(j.shoe_md_ft, "depth")}</td>
              <td className="px-1">{units.number(j.speed_ft_min, "trip_speed")}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {row.top_md_ft != null && row.top_md_ft > 0 && (
        <p className="mt-2 text-[12px] text-mute">
          Landed from {units.text(row.top_md_ft, "depth")} {row.hung === "liner hanger" ? "on drill pipe" : "on the landing string"}.
        </p>
      )}
    </>
  );
}
