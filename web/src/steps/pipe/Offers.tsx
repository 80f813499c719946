// The best string of one, two and three sections, and what it costs against the one in force.
import { adoption, useBench, useSnapshot } from "../../design/context";
import { Button } from "../../ui/Button";
import { grouped } from "../../ui/numbers";
import { useUnits } from "../../ui/units";
import { useOffers } from "./useLoads";

/** A cost against the one in force, in percent. */
function against(cost: number, now: number): string {
  if (now <= 0) return "";
  const percent = (100 * (cost - now)) / now;
  return Math.abs(percent) < 0.05 ? "as now" : `${percent < 0 ? "−" : "+"}${Math.abs(percent).toFixed(1)} %`;
}

export function Offers({ index }: { index: number }) {
  const { session } = useBench();
  const units = useUnits();
  const evaluation = useSnapshot("evaluation")!;
  const { offers, behind } = useOffers(index);
  if (!offers || offers.offers.length === 0) return null;
  const sections = evaluation.pipe.strings[index]!.sections;
  const now = sections.reduce((sum, s) => sum + s.cost, 0);
  const priced = sections.some((s) => s.priced);
  const take = (pieces: (typeof offers.offers)[number]["sections"]) => {
    const { document, evaluation: held } = session.snapshot();
    const parts = pieces.map((s, i) => ({
      weight_ppf: s.weight_ppf,
      grade: s.grade,
      connection: s.connection,
      to_md_ft: i < pieces.length - 1 ? s.to_md_ft : null,
    }));
    const { weight_ppf, grade, connection } = parts[0]!;
    const single = parts.length === 1;
    session.edit([
      ...adoption(document, held),
      { path: `/strings/${index}/pipe`, value: single ? { weight_ppf, grade, connection } : null },
      { path: `/strings/${index}/sections`, value: single ? [] : parts },
    ]);
  };
  return (
    <details className="text-[12px]" open aria-busy={behind}>
      <summary className="text-mute">Best pipe that withstands every load{priced ? ", by price" : ", by relative cost"}</summary>
      {offers.offers.map((offer) => (
        <div key={offer.sections.length} className="mb-1 flex items-start gap-2">
          <span className="w-14 shrink-0 text-right">{priced ? grouped(offer.cost) : against(offer.cost, now)}</span>
          <span className="min-w-0 flex-1">
            {offer.sections.map((s, i) => (
              <span key={i} className="block">
                {units.number(s.weight_ppf, "linear_weight")} {s.grade} {s.connection} to {units.text(s.to_md_ft, "depth")}
              </span>
            ))}
          </span>
          <Button
            aria-label={`Use ${offer.sections.length === 1 ? "one section" : `${offer.sections.length} sections`}`}
            onClick={() => {
              take(offer.sections);
            }}
          >
            Use
          </Button>
        </div>
      ))}
    </details>
  );
}
