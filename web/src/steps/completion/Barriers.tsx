// Every state of the well with its two envelopes: how many stand, of which elements, how they are verified and what was recorded.
import { FileText } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { useBench, useDocument, useEvaluated, useSnapshot } from "../../design/context";
import type { BarrierElement, StateRow } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Grid } from "../../ui/grid/Grid";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { EnvelopeMark, VERDICTS } from "./envelopes";
import { setShown } from "./shownState";

export function Barriers() {
  const states = useEvaluated((e) => e.completion.states) ?? [];
  const decision = useDocument((d) => d.completion.decision);
  const [picked, setPicked] = useState<string | null>(null);
  const shown = states.filter((s) => decision == null || s.alternative === "" || s.alternative === decision);
  const short = shown.find((s) => s.allowed === "forbidden") ?? shown[shown.length - 1];
  const state = shown.find((s) => s.key === picked) ?? short;
  const key = state?.key;
  useEffect(() => {
    if (key !== undefined) setShown({ kind: "state", key });
  }, [key]);
  if (state === undefined) return <Empty>No state follows yet: the well needs its strings.</Empty>;
  return (
    <div className="grid grid-cols-1 gap-y-3">
      <States states={shown} picked={state.key} pick={setPicked} />
      <Envelopes state={state} />
      <Paper />
      <Titled title="Records" note="what was found when an element was verified; the last of each counts">
        <Grid
          title="Verifications"
          className="font-narrow"
          target="verified"
          path="/completion/verified"
          columns={["element", "how", "result", "psi", "date", "note"]}
          sortBy={null}
          newRow={() => ({ element: state.envelopes[0]?.elements[0]?.key ?? "mud", ...NEW })}
          empty="Nothing is recorded yet: every element is to be verified."
        />
      </Titled>
      <div>
        <FieldRow path="/policy/completion/barriers" />
        <FieldRow path="/policy/completion/barrier_cement_ft" />
      </div>
    </div>
  );
}

const NEW = { how: "pressure test", result: "holds", psi: null, date: "", note: "" };

function States({ states, picked, pick }: { states: readonly StateRow[]; picked: string; pick: (key: string) => void }) {
  const units = useUnits();
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.querySelector(`[data-state="${CSS.escape(picked)}"]`)?.scrollIntoView({ block: "nearest" });
  }, [picked]);
  return (
    <div ref={box} className="max-h-66 overflow-y-auto print:max-h-none">
      <Facts
        label="States of the well"
        heads={[{ title: "State" }, { title: "Entered by", left: true }, { title: "Barriers" }, { title: "Verdict", left: true }]}
        bad={(r) => states[r]!.allowed === "forbidden"}
        rows={states.map((s) => [
          <button
            key="s"
            type="button"
            aria-pressed={s.key === picked}
            data-state={s.key}
            className={`text-left underline-offset-2 hover:underline ${s.key === picked ? "font-semibold text-petrol" : ""}`}
            onClick={() => {
              pick(s.key);
            }}
          >
            {units.words(s.title)}
          </button>,
          s.removal.length === 0 ? "–" : units.words(s.removal),
          `${s.count} of ${s.needed}`,
          VERDICTS[s.allowed],
        ])}
      />
    </div>
  );
}

function Envelopes({ state }: { state: StateRow }) {
  const units = useUnits();
  const first = state.envelopes[0]!;
  return (
    <section aria-label="Envelopes">
      <h3 className="text-[13px] font-semibold">
        {units.words(state.title)}
        <span className={`ml-2 font-normal ${state.allowed === "allowed" ? "text-moss" : "text-brick"}`}>
          {state.count} of {state.needed} barriers by plan, {VERDICTS[state.allowed]}; {state.verified} verified
        </span>
      </h3>
      {state.removal.length > 0 && state.allowed === "forbidden" && (
        <p className="font-semibold text-brick" role="status">
          {units.words(state.removal)}: not allowed.
        </p>
      )}
      {state.note !== "" && <p className="text-[12px] text-mute">{state.note}</p>}
      {state.envelopes.map((envelope, k) => (
        <div key={envelope.name} className="mt-1.5">
          <p className="flex items-center gap-1.5 text-[12.5px]">
            <EnvelopeMark name={envelope.name} />
            <b>{envelope.name === "primary" ? "Primary envelope" : "Secondary envelope"}</b>
            <span className={envelope.stands === "stands" ? "text-moss" : "text-brick"}>{envelope.stands}</span>
          </p>
          <Elements elements={envelope.elements} from={k === 0 ? 1 : first.elements.length + 1} label={envelope.name} />
        </div>
      ))}
      {state.shared.length > 0 && (
        <p className="mt-1 text-[12px] text-mute">
          In both envelopes, at different depths: {state.shared.map((t) => units.words(t)).join(", ")}.
        </p>
      )}
    </section>
  );
}

function Elements({ elements, from, label }: { elements: readonly BarrierElement[]; from: number; label: string }) {
  const units = useUnits();
  const { session, goTo } = useBench();
  const held = useDocument((d) => d.completion.verified) ?? [];
  if (elements.length === 0) return <p className="pl-6 text-[12.5px] text-mute">none</p>;
  const record = (key: string) => {
    const ids = new Set(held.map((v) => v.id));
    let n = held.length + 1;
    while (ids.has(`v${n}`)) n += 1;
    const row = { id: `v${n}`, element: key, ...NEW, date: new Date().toISOString().slice(0, 10) };
    session.edit([{ path: "/completion/verified", value: [...held, row] }]);
  };
  return (
    <Facts
      label={`Elements of the ${label} envelope`}
      heads={[
        { title: "No." },
        { title: "Element", left: true },
        { title: "Stands", left: true },
        { title: "Verified by", left: true },
        { title: "Record", left: true },
      ]}
      bad={(r) => elements[r]!.stands === "fails"}
      rows={elements.map((e, i) => [
        String(from + i),
        <button
          key="e"
          type="button"
          className="text-left underline-offset-2 hover:underline"
          onClick={() => {
            goTo(stepOf(e.place), e.place);
          }}
        >
          {units.words(e.title)}
        </button>,
        e.why.length === 0 ? e.stands : `${e.stands}: ${units.words(e.why)}`,
        `${e.verify}${e.pressure_psi === null ? "" : `, ${units.text(e.pressure_psi, "pressure")}`}`,
        e.said.length > 0 ? (
          units.words(e.said)
        ) : (
          <Button
            key="r"
            onClick={() => {
              record(e.key);
            }}
          >
            Record
          </Button>
        ),
      ])}
    />
  );
}

/** The step on which a place is worked, by its first word. */
function stepOf(place: string): string {
  const [, first = "", , key = ""] = place.split("/");
  if (first === "strings") return key === "mud_ppg" ? "mud" : key === "cement" ? "cement" : "pipe";
  return first === "wellhead" || first === "preventers" || first === "sea" ? first : "completion";
}

/** One page a state, for the file and for signatures. */
function Paper() {
  const { session } = useBench();
  const ready = useSnapshot("save") === "saved";
  const units = useUnits();
  return (
    <p>
      <a
        href={ready ? `/api/designs/${session.id}/barriers.pdf?${units.query}` : undefined}
        aria-disabled={!ready}
        title={ready ? "One page for each state, with both envelopes and room to sign" : "waits until the last edit is saved"}
        className={`inline-flex items-center gap-1.5 rounded border border-rule px-2 py-0.5 text-[12px] leading-5 hover:border-petrol ${ready ? "" : "opacity-50"}`}
      >
        <FileText size={13} aria-hidden /> Barriers, a page a state (PDF)
      </a>
    </p>
  );
}
