// The margin: findings with what would mend them, assumptions, and the working of the number last asked about.
import { useState } from "react";
import { useBench, useSnapshot } from "../design/context";
import type { Finding } from "../design/types";
import { Button } from "../ui/Button";
import { SEVERITY } from "../ui/mark";
import { useUnits } from "../ui/units";
import { WorkingPanel } from "./WorkingPanel";
import { STEP_WORDS, placeWords, stepOf } from "./places";

export function Margin() {
  const { evaluation, faults } = useSnapshot();
  const { asked } = useBench();
  const findings = evaluation?.findings ?? [];
  return (
    <aside aria-label="Findings and working" className="flex h-full w-[302px] shrink-0 flex-col border-l border-rule bg-sheet">
      <div className="min-h-0 flex-1 overflow-y-auto px-3 py-2.5" role="region" aria-label="Findings" tabIndex={0}>
        {faults.length > 0 && <Faults />}
        <h2 className="mb-2 flex flex-wrap items-baseline gap-x-2 text-[14px] font-semibold">
          Findings <Counts findings={findings} />
        </h2>
        {evaluation && findings.length === 0 && (
          <p className="text-mute">No finding on what is given. Assumptions below still need checking.</p>
        )}
        <ul className="space-y-3">
          {findings.map((finding, i) => (
            <FindingCard key={i} finding={finding} />
          ))}
        </ul>
        <Assumptions />
        <p className="mt-4 border-t border-rule pt-2 text-[11.5px] leading-snug text-mute">
          A planning aid. Results need checking by a competent and, where required, licensed engineer; local rules prevail.
        </p>
      </div>
      {asked && <WorkingPanel />}
    </aside>
  );
}

function Counts({ findings }: { findings: readonly Finding[] }) {
  const words = (["stop", "caution", "unknown", "note"] as const)
    .map((severity) => ({ severity, count: findings.filter((f) => f.severity === severity).length }))
    .filter(({ count }) => count > 0);
  return (
    <span className="text-[12px] font-normal text-mute">
      {words.map(({ severity, count }) => `${count} ${severity}${severity === "unknown" || count === 1 ? "" : "s"}`).join(" · ") || "none"}
    </span>
  );
}

function Faults() {
  const { faults } = useSnapshot();
  const { goTo } = useBench();
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
                goTo(stepOf(fault.path), fault.path);
              }}
            >
              <span className="font-semibold">{placeWords(fault.path)}</span>: {fault.value}; expected {fault.expected}.
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function FindingCard({ finding }: { finding: Finding }) {
  const units = useUnits();
  const { session, goTo, ask } = useBench();
  const { word, border, text, Icon } = SEVERITY[finding.severity];
  return (
    <li className={`${border} pl-2.5`} data-finding={finding.severity}>
      <button
        type="button"
        className="block w-full text-left hover:text-petrol"
        onClick={() => {
          goTo(finding.step, finding.place);
        }}
      >
        <span className={`flex items-center gap-1 text-[11.5px] ${text}`}>
          <Icon size={12} aria-hidden /> <span className="font-semibold">{word}</span>
          <span className="text-mute">
            · {STEP_WORDS[finding.step]} · {units.words(finding.subject)}
          </span>
        </span>
        <span className="block">{units.words(finding.message)}</span>
      </button>
      <div className="mt-1 flex flex-wrap gap-1.5">
        {finding.remedies.map((remedy, i) => (
          <Button
            key={i}
            kind="act"
            data-remedy
            onClick={() => {
              session.edit(remedy.changes);
            }}
          >
            {units.words(remedy.label)}
          </Button>
        ))}
        {finding.working && (
          <Button
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

function Assumptions() {
  const { evaluation } = useSnapshot();
  const { goTo } = useBench();
  const units = useUnits();
  const [open, setOpen] = useState(false);
  const assumptions = evaluation?.assumptions ?? [];
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
                goTo(assumption.step, assumption.place);
              }}
            >
              {STEP_WORDS[assumption.step]}: {units.words(assumption.text)}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
