// "What if we set the casing here today?": the depth is dragged in the section, the whole well follows, and what changes is told.
import { useMemo } from "react";
import { useBench, useEvaluated, useSnapshot } from "../../design/context";
import type { Evaluation, Finding } from "../../design/types";
import { Button } from "../../ui/Button";
import { NumberField } from "../../ui/Field";
import { SEVERITY } from "../../ui/mark";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

export function Suppose() {
  const { session } = useBench();
  const units = useUnits();
  const at = useEvaluated((e) => e.logbook.drilling) ?? null;
  const from = useSnapshot("supposedFrom");
  const whatIf = useSnapshot("whatIf");
  const strings = useSnapshot("document").strings;
  const now = useSnapshot("evaluation");
  const index = whatIf === null ? at : strings.findIndex((s) => s.id === whatIf.string);
  const string = index === null ? undefined : strings[index];
  if (string === undefined || index === null) return null;
  const size = string.od_in == null ? string.role : units.text(string.od_in, "size");
  return (
    <section aria-label="What if">
      <Titled title={`What if we set the ${size} casing here today?`} note="drag the gold line in the section, or type; Esc forgets it">
        <p className="mt-1 flex items-center gap-2 text-[13px]">
          <span className="text-mute">Shoe at</span>
          <span className="bordered w-24">
            <NumberField
              label="Shoe set today at"
              place="suppose/shoe"
              quantity="depth"
              value={whatIf?.mdFt ?? null}
              optional
              proposed={from === null ? (now?.logbook.today_md_ft ?? null) : null}
              onCommit={(mdFt) => {
                session.logged.suppose(mdFt === null ? null : { string: string.id, mdFt });
              }}
            />
          </span>
          <span className="text-mute">{units.unit("depth")}</span>
          {whatIf !== null && (
            <>
              <Button
                kind="act"
                onClick={() => {
                  session.logged.suppose(null);
                  session.edit([{ path: `/strings/${index}/shoe_md_ft`, value: whatIf.mdFt }]);
                }}
              >
                Plan it so
              </Button>
              <Button onClick={() => session.logged.suppose(null)}>Forget it</Button>
            </>
          )}
        </p>
      </Titled>
      {whatIf !== null && from !== null && now !== null && <Changes from={from} now={now} index={index} />}
    </section>
  );
}

function Changes({ from, now, index }: { from: Evaluation; now: Evaluation; index: number }) {
  const units = useUnits();
  const key = (f: Finding) => `${f.severity} ${f.step} ${f.place} ${stem(units.words(f.subject))}`;
  const { come, gone } = useMemo(() => {
    const heavy = (e: Evaluation) => e.findings.filter((f) => f.severity !== "note");
    const [before, after] = [new Set(heavy(from).map(key)), new Set(heavy(now).map(key))];
    return { come: heavy(now).filter((f) => !before.has(key(f))), gone: heavy(from).filter((f) => !after.has(key(f))) };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- key follows the units
  }, [from, now, units.key]);
  const kick = (e: Evaluation) => e.depths.strings[index]?.kick;
  const tolerance = (e: Evaluation) => (kick(e)?.limited === false ? "no limit" : units.text(kick(e)?.tolerance_bbl ?? null, "volume"));
  return (
    <div className="mt-1.5 text-[13px]" role="status">
      {kick(now) != null && (
        <p>
          Kick tolerance at this shoe: <b>{tolerance(now)}</b>, as planned {tolerance(from)}; policy asks{" "}
          {units.text(kick(now)!.required_bbl, "volume")}.
        </p>
      )}
      <Listed title="Comes with it" findings={come} />
      <Listed title="Goes with it" findings={gone} />
      {come.length === 0 && gone.length === 0 && (
        <p className="text-mute">No stop, caution or unknown comes or goes with it; the numbers of those that stay may change.</p>
      )}
    </div>
  );
}

/** Of a step of the sheet its number is no part of what it is. */
function stem(subject: string): string {
  return subject.replace(/^Step \d+: /, "");
}

function Listed({ title, findings }: { title: string; findings: readonly Finding[] }) {
  const units = useUnits();
  if (findings.length === 0) return null;
  return (
    <div className="mt-1">
      <h4 className="text-[12px] text-mute">{title}</h4>
      <ul>
        {findings.map((f, i) => {
          const { Icon, text, word } = SEVERITY[f.severity];
          return (
            <li key={i} className="py-0.5">
              <Icon size={12} aria-label={`${word}:`} className={`mr-1 inline align-[-1px] ${text}`} />
              <b className="font-semibold">{units.words(f.subject)}</b>: {units.words(f.message)}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
