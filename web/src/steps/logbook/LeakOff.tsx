// Leak-off and integrity tests: points with their line and break, the strength they show, and what the plan counts on.
import { useState } from "react";
import { saidOf } from "../../design/api";
import { useBench, useEvaluated } from "../../design/context";
import { inForce } from "../../design/drilled";
import { useReference } from "../../design/reference";
import type { LeakOffRow, LogEntry } from "../../design/types";
import { Button } from "../../ui/Button";
import { Choice, NumberField } from "../../ui/Field";
import { Headline } from "../../ui/Headline";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { EntryForm } from "./EntryForm";
import { unwritten } from "./fields";
import { LeakOffChart } from "./LeakOffChart";
import { useLog, useSizes, useWriteLog } from "./useLog";

export function LeakOff() {
  const tests = useEvaluated((e) => e.logbook.tests) ?? [];
  const landed = useEvaluated((e) => e.logbook.landed) ?? [];
  const strings = useEvaluated((e) => e.strings) ?? [];
  const log = useLog();
  const [writing, setWriting] = useState(false);
  const [picked, setPicked] = useState<number | null>(null);
  const sizeOf = useSizes();
  const at = tests.findIndex((t) => t.entry === picked);
  const test = tests[at < 0 ? tests.length - 1 : at];
  const entry = test && log.find((e) => e.number === test.entry);
  const hidden = inForce(log).filter((e) => e.kind === "leak-off test").length > tests.length;
  const shoe = strings[landed[landed.length - 1] ?? -1]?.id ?? "";
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <p className="flex flex-wrap items-center gap-1.5">
        <Button kind="act" onClick={() => setWriting(!writing)}>
          Log a test
        </Button>
        {tests.length > 1 &&
          tests.map((t) => (
            <Button key={t.entry} aria-pressed={t === test} kind={t === test ? "act" : "plain"} onClick={() => setPicked(t.entry)}>
              {sizeOf(strings[t.string]?.id ?? "")} shoe, entry {t.entry}
            </Button>
          ))}
      </p>
      {writing && (
        <EntryForm
          kind="leak-off test"
          initial={{ string: shoe }}
          action="Write test"
          onDone={() => setWriting(false)}
          onCancel={() => setWriting(false)}
        />
      )}
      {test === undefined &&
        !writing &&
        (hidden ? (
          <Empty>Tests are logged and the plan alone is shown: show the well as drilled to see them.</Empty>
        ) : (
          <Empty>
            No test is logged. Paste volume and pressure of a leak-off or integrity test, and its strength goes into the ground.
          </Empty>
        ))}
      {test && entry && <Shown key={test.entry} test={test} entry={entry} />}
    </div>
  );
}

function Shown({ test, entry }: { test: LeakOffRow; entry: LogEntry }) {
  const { session } = useBench();
  const units = useUnits();
  const reference = useReference();
  const write = useWriteLog();
  const log = useLog();
  const [said, setSaid] = useState("");
  const correct = (patch: Partial<LogEntry>) => {
    setSaid("");
    write([{ ...unwritten(entry), ...patch, corrects: entry.number }]).catch((error: unknown) => {
      session.logged.try(null);
      setSaid(saidOf(error, (path) => reference.find(path.replace("/entries/", "/log/"))?.title ?? "Entry"));
    });
  };
  const look = (psi: number | null) => {
    session.logged.try(psi === null ? null : log.map((e) => (e === entry ? { ...e, leak_off_psi: psi } : e)));
  };
  const short = test.planned_ppg !== null && test.emw_ppg !== null ? test.emw_ppg - test.planned_ppg : null;
  return (
    <section aria-label="Test" data-test-entry={test.entry}>
      <p className="text-[15px]" role="status">
        {test.kind === "leak-off" ? "Leak-off at " : "Integrity test to "}
        <b>
          <Headline working={test.working} title="strength at the shoe">
            {units.text(test.emw_ppg, "emw")}
          </Headline>
        </b>
        <span className="ml-2 text-[12.5px] text-mute">
          at {units.text(test.md_ft, "depth")}
          {test.planned_ppg !== null && `; the plan counts on ${units.text(test.planned_ppg, "emw")}`}
        </span>
      </p>
      <p className={`text-[12.5px] ${short !== null && short < 0 && test.kind === "leak-off" ? "text-gold-text" : "text-mute"}`}>
        {short !== null && short < 0 && test.kind === "leak-off" ? "Less than the plan counts on. " : ""}
        {test.kind === "integrity"
          ? "No break was reached: the rock holds at least that. It raises the plan where the plan has less, and lowers nothing."
          : "The break is the strength of the rock there: it stands in the ground with this entry as its source."}
      </p>
      {(entry.points?.length ?? 0) > 0 && (
        <LeakOffChart test={test} points={entry.points!} onLook={look} onSet={(psi) => correct({ leak_off_psi: psi })} />
      )}
      <dl className="bordered mt-1 grid max-w-md grid-cols-[10rem_6rem_3rem] items-center gap-x-2 text-[13px]">
        <dt>Mud in the hole</dt>
        <dd className="text-right tabular-nums">{units.number(test.mud_ppg, "emw")}</dd>
        <dd className="text-mute">{units.unit("emw")}</dd>
        <dt>Pressure at the break</dt>
        <dd>
          <NumberField
            label="Pressure at the break"
            place={`/log/${test.entry}/leak_off_psi`}
            quantity="pressure"
            value={test.given ? test.pressure_psi : null}
            proposed={test.found_psi}
            optional
            onCommit={(psi) => correct({ leak_off_psi: psi })}
          />
        </dd>
        <dd className="text-mute">{units.unit("pressure")}</dd>
        <dt>Test</dt>
        <dd className="col-span-2">
          <Choice
            label="Kind of test"
            place={`/log/${test.entry}/test`}
            value={entry.test ?? ""}
            options={[
              { value: "", text: `by its points: ${test.kind}` },
              { value: "leak-off", text: "leak-off" },
              { value: "integrity", text: "integrity" },
            ]}
            onCommit={(kind) => correct({ test: kind === "" ? null : (kind as "leak-off" | "integrity") })}
          />
        </dd>
      </dl>
      {said !== "" && (
        <p role="alert" className="text-[12.5px] text-brick">
          Not written. {said}.
        </p>
      )}
    </section>
  );
}
