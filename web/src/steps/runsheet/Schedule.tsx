// The schedule: the end of the well by its mean and its band, section by section, by kind of work, and what is done beside the rig.
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { RunsheetResult, SheetSection } from "../../design/types";
import { DocText, FieldLabel, FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { NumberField } from "../../ui/Field";
import { Headline } from "../../ui/Headline";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { useFault } from "../../design/context";
import { rateSection } from "./edits";
import { useSheet } from "./useSheet";
import { ZoneRates } from "./ZoneRates";

export function Schedule() {
  const result = useEvaluated((e) => e.runsheet);
  if (result?.days == null) return null;
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <End result={result} />
      <Sections result={result} />
      <ZoneRates />
      <Kinds result={result} />
      <Beside />
      <section aria-label="Rates of policy">
        <FieldRow path="/policy/runsheet/npt_share" />
        <FieldRow path="/policy/runsheet/connection_minutes" />
        <FieldRow path="/policy/runsheet/stand_joints" />
        <FieldRow path="/policy/runsheet/stand_minutes" />
        <FieldRow path="/policy/runsheet/open_stand_minutes" />
      </section>
    </div>
  );
}

function End({ result }: { result: RunsheetResult }) {
  const units = useUnits();
  const spud = useDocument((d) => d.runsheet.spud ?? "");
  const fault = useFault("/runsheet/spud");
  const days = result.days!;
  const least = result.unknown > 0 ? "at least " : "";
  return (
    <section aria-label="End of the well">
      <p className="text-[15px]" role="status" data-end-day={days.expected.toFixed(1)}>
        {least}
        <b>{units.text(days.expected, "days")}</b> from the spud{result.ends_on === "" ? "" : `, ${result.ends_on}`}
        <span className="ml-2 text-[12.5px] text-mute">
          P10 {units.number(days.low, "days")}, P90 {units.number(days.high, "days")}
        </span>
      </p>
      <p className="text-[12px] text-mute">
        Sums: least {units.number(days.least, "days")}, likely {units.number(days.likely, "days")}, most {units.text(days.most, "days")}.
        Lost time included.
        {result.unknown > 0 && (
          <span className="text-gold-text">
            {" "}
            The time of {result.unknown} {result.unknown === 1 ? "step is" : "steps is"} not known.
          </span>
        )}
      </p>
      <div className="bordered mt-1 grid max-w-sm grid-cols-[6rem_7rem_1fr] items-center gap-x-2">
        <FieldLabel path="/runsheet/spud" />
        <DocText path="/runsheet/spud" />
        <span className="text-[12px] text-mute">{spud === "" ? "YYYY-MM-DD" : ""}</span>
      </div>
      {fault !== null && (
        <p role="alert" className="text-xs text-brick">
          {fault}
        </p>
      )}
    </section>
  );
}

function Sections({ result }: { result: RunsheetResult }) {
  const units = useUnits();
  return (
    <section aria-label="Sections">
      <Titled title="Section by section" note="an empty rate follows policy, by size of the hole">
        <Facts
          label="Sections of the schedule"
          heads={[
            { title: "Section", left: true },
            { title: "Rate", unit: units.unit("drilling_rate") },
            { title: "Begins, day" },
            { title: "Drilled" },
            { title: "Ends" },
            { title: "P10 to P90" },
          ]}
          rows={result.sections.map((s) => [
            units.words(s.name),
            s.bottom_md_ft == null ? "–" : <Rate key="r" section={s} />,
            units.number(s.begins, "days"),
            s.drilled_day == null ? "–" : units.number(s.drilled_day, "days"),
            units.number(s.ends, "days"),
            `${units.number(s.low, "days")} – ${units.number(s.high, "days")}`,
          ])}
        />
      </Titled>
    </section>
  );
}

function Rate({ section }: { section: SheetSection }) {
  const { session } = useBench();
  const units = useUnits();
  const id = useEvaluated((e) => (section.string === null ? undefined : e.strings[section.string]?.id)) ?? "";
  const at = useDocument((d) => d.runsheet.rates?.findIndex((r) => r.string === id && r.zone == null) ?? -1);
  const given = useDocument((d) => d.runsheet.rates?.find((r) => r.string === id && r.zone == null)?.ft_hour ?? null);
  return (
    <span className="inline-block w-16" data-rate-of={id}>
      <NumberField
        label={`Drilling rate, ${units.words(section.name)}`}
        place={at < 0 ? "" : `/runsheet/rates/${at}/ft_hour`}
        quantity="drilling_rate"
        help=""
        value={given}
        optional
        proposed={section.rate_ft_hour}
        onCommit={(value) => {
          session.edit(rateSection(session.snapshot().document, id, value));
        }}
      />
    </span>
  );
}

function Kinds({ result }: { result: RunsheetResult }) {
  const units = useUnits();
  const most = Math.max(1, ...result.kinds.map((k) => k.most_hours));
  return (
    <section aria-label="Hours by kind">
      <Titled title="Hours by kind of work" note="after the spud, lost time included">
        <Facts
          label="Hours by kind of work"
          heads={[
            { title: "Kind" },
            { title: "Least", unit: "h" },
            { title: "Likely", unit: "h" },
            { title: "Most", unit: "h" },
            { title: "Mean", unit: "h" },
            { title: "Spread", left: true },
          ]}
          rows={result.kinds.map((k) => [
            k.kind,
            units.number(k.least_hours, "hours"),
            units.number(k.likely_hours, "hours"),
            units.number(k.most_hours, "hours"),
            <Headline key="m" working={k.working} title={`mean hours of ${k.kind}`}>
              {units.number(k.expected_hours, "hours")}
            </Headline>,
            <svg key="b" width={110} height={9} aria-hidden className="inline-block">
              <rect
                x={(k.least_hours / most) * 110}
                width={((k.most_hours - k.least_hours) / most) * 110}
                y={2}
                height={5}
                fill="var(--petrol)"
                fillOpacity={0.2}
              />
              <rect width={(k.expected_hours / most) * 110} y={3.5} height={2} fill="var(--petrol)" />
            </svg>,
          ])}
        />
      </Titled>
    </section>
  );
}

/** What is done beside the rig's own steps, with what it may be late; the rig's own are the critical path. */
function Beside() {
  const units = useUnits();
  const lines = useSheet()?.lines.filter((l) => l.beside && !l.crossed) ?? [];
  if (lines.length === 0) return null;
  return (
    <section aria-label="Beside the rig">
      <Titled title="Beside the rig’s own work" note="the rest is the critical path: a day late there is a day late at the end">
        <Facts
          label="Work beside the rig"
          heads={[
            { title: "Step", left: true },
            { title: "Begins on day" },
            { title: "Takes", unit: "h" },
            { title: "May be late", unit: "h" },
          ]}
          rows={lines.map((l) => [
            `${l.number}. ${l.section.length > 0 ? `${units.words(l.section)}: ` : ""}${units.words(l.text)}`,
            l.begins === null ? "–" : units.number(l.begins, "days"),
            l.hours === null ? "unknown" : units.number(l.hours, "hours"),
            (l.slack_hours ?? 0) < 0.05 ? "critical" : units.number(l.slack_hours, "hours"),
          ])}
        />
      </Titled>
    </section>
  );
}
