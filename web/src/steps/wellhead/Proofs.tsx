// Tests of the wellhead: of the welds, between the seals, of the flanges; what each proves, and what must not see it.
import type { WellheadResult } from "../../design/types";
import { Headline } from "../../ui/Headline";
import { useUnits } from "../../ui/units";

export function Proofs({ head }: { head: WellheadResult }) {
  const units = useUnits();
  return (
    <div className="grid grid-cols-1 gap-y-3">
      {head.proofs.map((test, i) => (
        <section key={i} aria-label={`${test.title}, ${head.pieces[test.piece]!.name}`} className="border-b border-rule/60 pb-2">
          <h3 className="flex items-baseline gap-2 text-[13px] font-semibold">
            {test.title}
            <span className="font-normal text-mute">{head.pieces[test.piece]!.name}</span>
            <span className="ml-auto">
              {test.psi === null || test.working === null ? (
                "unknown"
              ) : (
                <Headline working={test.working} title={test.title.toLowerCase()}>
                  {units.text(test.psi, "pressure")}
                </Headline>
              )}
            </span>
          </h3>
          <dl className="grid grid-cols-[5.5rem_1fr] gap-x-2 text-[12.5px]">
            {(
              [
                ["Proves", test.proves],
                ["Pressure", test.by],
                ["Behind it", test.behind],
                ["Spared", test.spared],
              ] as const
            ).map(([term, text]) => (
              <div key={term} className="contents">
                <dt className="text-mute">{term}</dt>
                <dd>{text}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
      <p className="text-[12px] text-mute">
        Pressures stay under the casing&apos;s collapse. Maker&apos;s procedures and local rules prevail.
      </p>
    </div>
  );
}
