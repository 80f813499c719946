// The end-of-well comparison: what was planned beside what was drilled, line by line, with its days.
import { Fragment } from "react";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { useLogbook } from "./useLog";

export function Compare() {
  const units = useUnits();
  const { data } = useLogbook();
  const rows = data?.detail.comparison ?? [];
  if (rows.length === 0) return <Empty>Nothing is logged to compare, or the plan alone is shown.</Empty>;
  return (
    <table className="w-full border-collapse text-[13px]" aria-label="Plan and actual">
      <thead>
        <tr className="text-[11.5px] text-mute">
          <th scope="col" className="border-b border-rule text-left font-normal">
            What
          </th>
          <th scope="col" className="border-b border-rule pl-2 text-right font-normal">
            Planned
          </th>
          <th scope="col" className="border-b border-rule pl-2 text-right font-normal">
            Actual
          </th>
          <th scope="col" className="border-b border-rule pl-3 text-left font-normal">
            Difference
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row, i) => {
          const section = units.words(row.section);
          const first = i === 0 || units.words(rows[i - 1]!.section) !== section;
          const differs = row.difference.length > 0 && row.difference[0] !== "as planned";
          return (
            <Fragment key={i}>
              {first && (
                <tr>
                  <th scope="rowgroup" colSpan={4} className="pt-2 text-left text-[13px] font-semibold">
                    {section}
                  </th>
                </tr>
              )}
              <tr className="border-b border-rule/60 align-baseline">
                <th scope="row" className="py-0.5 text-left font-normal">
                  {row.what}
                </th>
                <td className="pl-2 text-right whitespace-nowrap tabular-nums">{units.words(row.planned)}</td>
                <td className="pl-2 text-right whitespace-nowrap tabular-nums">{units.words(row.actual)}</td>
                <td className={`pl-3 ${differs ? "font-semibold" : "text-mute"}`}>{units.words(row.difference)}</td>
              </tr>
            </Fragment>
          );
        })}
      </tbody>
    </table>
  );
}
