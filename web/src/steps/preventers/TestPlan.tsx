// The test plan of a nipple-up: low and high of every element, what is across, which valves stand how; a row shows in the drawing
// what sees the pressure.
import { Download } from "lucide-react";
import { useDocument } from "../../design/context";
import type { StackRow, Words } from "../../design/types";
import { Headline } from "../../ui/Headline";
import { PaperLinks } from "../../ui/PaperLinks";
import { useUnits } from "../../ui/units";

interface TestPlanProps {
  row: StackRow;
  shown: number | null;
  onShow: (test: number | null) => void;
}

export function TestPlan({ row, shown, onShow }: TestPlanProps) {
  const units = useUnits();
  const days = useDocument((d) => d.policy.preventers.test_days);
  const underSea = useDocument((d) => d.site.setting === "subsea");
  const unit = units.unit("pressure");
  return (
    <div>
      <PaperLinks papers={[{ file: "bop-tests.csv", text: "Test plan, CSV", Icon: Download }]} />
      <table className="w-full border-collapse text-[12.5px]" aria-label="Test plan">
        <thead>
          <tr className="text-[11.5px] text-mute">
            <th scope="col" className="border-b border-rule text-left font-normal">
              Test
            </th>
            <th scope="col" className="border-b border-rule pl-1 text-right font-normal">
              Low, {unit}
            </th>
            <th scope="col" className="border-b border-rule pl-1 text-right font-normal">
              High, {unit}
            </th>
          </tr>
        </thead>
        <tbody>
          {row.tests.map((test, i) => (
            <tr key={i} className={`border-b border-rule/60 align-baseline ${i === shown ? "bg-petrol/10" : ""}`}>
              <th scope="row" className="py-0.5 pr-1 text-left font-normal">
                <button
                  type="button"
                  className="text-left hover:text-petrol"
                  aria-pressed={i === shown}
                  onClick={() => {
                    onShow(i === shown ? null : i);
                  }}
                >
                  {test.title}
                  <span className="block text-[11.5px] text-mute">
                    {units.words(test.across as Words)}
                    {test.tool !== "none" && `, ${test.tool}`} · {test.by}
                  </span>
                </button>
                {i === shown && (
                  <dl className="mt-1 grid grid-cols-[4rem_1fr] gap-x-2 text-[12px]">
                    <dt className="text-mute">Valves</dt>
                    <dd>{test.opened}</dd>
                    <dt className="text-mute">Sees it</dt>
                    <dd>{test.sees}</dd>
                    {test.tension_lbf != null && (
                      <>
                        <dt className="text-mute">Pulls</dt>
                        <dd>
                          {units.text(test.tension_lbf, "force")} on the pipe; policy allows {units.text(test.most_lbf, "force")}
                        </dd>
                      </>
                    )}
                  </dl>
                )}
              </th>
              <td className="py-0.5 pl-1 text-right">{test.high_psi === null ? "–" : units.number(test.low_psi, "pressure", 0)}</td>
              <td className="py-0.5 pl-1 text-right whitespace-nowrap">
                {test.high_psi === null || test.working === null ? (
                  "–"
                ) : (
                  <Headline working={test.working} title={`test of ${test.title}`}>
                    {units.number(test.high_psi, "pressure", 0)}
                  </Headline>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-[12px] text-mute">
        Low first, then high; each held and recorded. At nipple-up, after any seal was broken, and within {days} days of the last.
        {underSea && " Pressures are those at the stack: the rig reads less by the column of what fills the line down to it."}
      </p>
    </div>
  );
}
