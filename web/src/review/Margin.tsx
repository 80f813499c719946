// The margin: findings with what would mend them, assumptions, and the working of the number last asked about.
import { useState } from "react";
import { useBench, useEvaluated, useSnapshot } from "../design/context";
import type { Finding } from "../design/types";
import { Button } from "../ui/Button";
import { SEVERITY } from "../ui/mark";
import { useUnits } from "../ui/units";
import { Tried, useRemediesTried, useTried } from "./useTried";
import { WorkingPanel } from "./WorkingPanel";
import type { Reference } from "../design/reference";
import { useReference } from "../design/reference";

export function Margin() {
  const found = useEvaluated((e) => e.findings);
  const faults = useSnapshot("faults");
  const { asked } = useBench();
  const findings = found ?? [];
  return (
    <aside
      aria-label="Findings and working"
      className="flex h-full w-[302px] shrink-0 flex-col border-l border-rule bg-sheet drawer:absolute drawer:right-0 drawer:z-20 drawer:shadow-xl stacked:h-auto stacked:w-full stacked:border-t stacked:border-l-0"
    >
      <div id="findings" className="min-h-0 flex-1 overflow-y-auto px-3 py-2.5" role="region" aria-label="Findings" tabIndex={0}>
        {faults.length > 0 && <Faults />}
        <h2 className="mb-2 flex flex-wrap items-baseline gap-x-2 text-[14px] font-semibold">
          Findings <Counts findings={found} />
        </h2>
        <Supposed />
        {found && findings.length === 0 && <p className="text-mute">No finding on what is given. Assumptions below still need checking.</p>}
        <Tried value={useRemediesTried()}>
          {groups(findings).map((group) => (
            <FindingGroup key={group.severity} severity={group.severity} findings={group.findings} />
          ))}
        </Tried>
        <Assumptions />
        <p className="mt-4 border-t border-rule pt-2 text-[11.5px] leading-snug text-mute">
          A planning aid. Results need checking by a competent and, where required, licensed engineer; local rules prevail.
        </p>
      </div>
      {asked && <WorkingPanel />}
    </aside>
  );
}

/** While something is supposed the findings are of that. */
function Supposed() {
  const whatIf = useSnapshot("whatIf");
  const units = useUnits();
  const string = useSnapshot("document").strings.find((s) => s.id === whatIf?.string);
  if (whatIf === null || string === undefined) return null;
  const size = string.od_in == null ? string.role : units.text(string.od_in, "size");
  return (
    <p className="mb-2 border-l-[3px] border-gold pl-2 text-[12.5px]">
      What if the {size} casing were set at {units.text(whatIf.mdFt, "depth")} today
    </p>
  );
}

type Severity = Finding["severity"];
const SEVERITIES: readonly Severity[] = ["stop", "caution", "unknown", "note"];

/** Findings by severity, and within it in the order of the steps, as the evaluation brings them. */
function groups(findings: readonly Finding[]): { severity: Severity; findings: Finding[] }[] {
  return SEVERITIES.map((severity) => ({ severity, findings: findings.filter((f) => f.severity === severity) })).filter(
    (g) => g.findings.length > 0,
  );
}

/** One severity, step by step; it can be folded away. */
function FindingGroup({ severity, findings }: { severity: Severity; findings: readonly Finding[] }) {
  const { word, text, Icon } = SEVERITY[severity];
  const steps = [...new Set(findings.map((f) => f.step))];
  const reference = useReference();
  return (
    <details open className="mb-2">
      <summary className={`flex items-center gap-1 text-[12.5px] font-semibold ${text}`}>
        <Icon size={13} aria-hidden /> {word} <span className="font-normal text-mute">{findings.length}</span>
      </summary>
      {steps.map((step) => (
        <section key={step} aria-label={`${word}, ${reference.title(step)}`}>
          <h3 className="mt-1 text-[11.5px] text-mute">{reference.title(step)}</h3>
          <ul className="space-y-2">
            {findings
              .filter((f) => f.step === step)
              .map((finding, i) => (
                <FindingCard key={i} finding={finding} />
              ))}
          </ul>
        </section>
      ))}
    </details>
  );
}

/** How many of each; before the first evaluation it is not known that there are none. */
export function Counts({ findings }: { findings: readonly Finding[] | undefined }) {
  if (findings === undefined) return <span className="text-[12px] font-normal text-mute">not evaluated yet</span>;
  const words = SEVERITIES.map((severity) => ({ severity, count: findings.filter((f) => f.severity === severity).length })).filter(
    ({ count }) => count > 0,
  );
  return (
    <span className="text-[12px] font-normal text-mute">
      {words.map(({ severity, count }) => `${count} ${severity}${severity === "unknown" || count === 1 ? "" : "s"}`).join(" · ") || "none"}
    </span>
  );
}

function Faults() {
  const faults = useSnapshot("faults");
  const { goTo } = useBench();
  const reference = useReference();
  return (
    <section role="alert" className="mb-3 border-l-[3px] border-brick bg-paper px-2 py-1.5">
      <h2 className="font-semibold text-brick">Cannot be evaluated or saved yet</h2>
      <p className="text-[12px] text-mute">What is shown is the last that could. Your entry is kept.</p>
      <ul className="mt-1 space-y-1">
        {faults.map((fault) => (
          <li key={fault.path}>
            <button
              type="button"
              className="text-left hover:text-petrol"
              onClick={() => {
                goTo(reference.stepOf(fault.path), fault.path);
              }}
            >
              <span className="font-semibold">{reference.words(fault.path)}</span>: {fault.value}; expected {fault.expected}.
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function FindingCard({ finding }: { finding: Finding }) {
  const units = useUnits();
  const { goTo, ask } = useBench();
  const reference = useReference();
  const { border } = SEVERITY[finding.severity];
  const logged = useEvaluated((e) => e.logbook.entries > 0);
  return (
    <li className={`${border} pl-2.5`} data-finding={finding.severity}>
      <button
        type="button"
        className="block w-full text-left hover:text-petrol"
        onClick={() => {
          goTo(whereOf(finding, reference), finding.place);
        }}
      >
        {logged && (
          <span
            className="mr-1 rounded border border-rule px-1 text-[10.5px] text-mute"
            title={finding.fact ? "Of what stands in the well, by the log" : "Of the plan"}
          >
            {finding.fact ? "fact" : "plan"}
          </span>
        )}
        <span className="font-semibold">{sentence(units.words(finding.subject))}.</span> {units.words(finding.message)}
      </button>
      {finding.remedies.length > 0 && <Remedies finding={finding} />}
      <div className="mt-1 flex flex-wrap gap-1.5">
        {finding.working && (
          <Button
            className="no-print"
            onClick={() => {
              ask(finding.working!, units.words(finding.subject));
            }}
          >
            Working
          </Button>
        )}
      </div>
    </li>
  );
}

/** Ways out of a finding, each with what it would bring elsewhere; one that does not clear it is not offered. */
function Remedies({ finding }: { finding: Finding }) {
  const units = useUnits();
  const { session } = useBench();
  const tried = useTried(finding);
  const faults = useSnapshot("faults");
  if (faults.length > 0) return null; // nothing can be tried on what cannot be evaluated
  if (tried === undefined) return <p className="mt-1 text-[12px] text-mute">Trying remedies…</p>;
  return (
    <div className="mt-1 flex flex-col items-start gap-1">
      {finding.remedies.map((remedy, i) => {
        const found = tried[i];
        if (!found?.clears) return null;
        return (
          <div key={i}>
            <Button
              kind="act"
              data-remedy
              onClick={() => {
                session.edit(remedy.changes);
              }}
            >
              {units.words(remedy.label)}
            </Button>
            {found.brings.map((brought, k) => (
              <p key={k} className={`text-[12px] leading-snug ${brought.severity === "stop" ? "text-brick" : "text-gold-text"}`}>
                Brings a {brought.severity}. {sentence(units.words(brought.words))}
              </p>
            ))}
          </div>
        );
      })}
    </div>
  );
}

/** The step where a place is worked: what a finding of the pipe lacks may stand on Ground. */
function whereOf({ step, place }: { step: string; place: string }, reference: Reference): string {
  return place.startsWith("/strings") || place === "" ? step : reference.stepOf(place);
}

function sentence(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function Assumptions() {
  const assumed = useEvaluated((e) => e.assumptions);
  const { goTo } = useBench();
  const units = useUnits();
  const reference = useReference();
  const [open, setOpen] = useState(false);
  const assumptions = assumed ?? [];
  if (assumptions.length === 0) return null;
  return (
    <details
      className="mt-4"
      open={open}
      onToggle={(event) => {
        setOpen(event.currentTarget.open);
      }}
    >
      <summary className="text-[13px] font-semibold">
        Assumptions <span className="text-[12px] font-normal text-mute">{assumptions.length} filled in by the tool</span>
      </summary>
      <ul className="mt-1 space-y-1 text-[12px]">
        {assumptions.map((assumption, i) => (
          <li key={i}>
            <button
              type="button"
              className="text-left text-mute hover:text-petrol"
              onClick={() => {
                goTo(whereOf(assumption, reference), assumption.place);
              }}
            >
              {reference.title(assumption.step)}: {units.words(assumption.text)}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
