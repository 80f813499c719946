// How the fluids of a job look: a colour and a pattern each, so that they are told apart without colour too.
import type { JobStage } from "../../design/types";

type Kind = JobStage["fluids"][number]["kind"];

const MARKS: Record<Kind, string> = {
  mud: "",
  flush: "M2 3h2M8 8h2",
  spacer: "M-1 4l5-5M-1 13l13-13M8 13l5-5",
  lead: "M2 2h1M7 5h1M3 9h1M10 10h1",
  tail: "M1 2h1.4M5 2h1.4M9 2h1.4M3 5h1.4M7 5h1.4M11 5h1.4M1 8h1.4M5 8h1.4M9 8h1.4M3 11h1.4M7 11h1.4M11 11h1.4",
  displacement: "M0 3h4M8 3h4M4 9h4",
};
const KINDS = Object.keys(MARKS) as Kind[];

export function FluidPatterns({ prefix }: { prefix: string }) {
  return (
    <defs>
      {KINDS.map((kind) => (
        <pattern key={kind} id={`${prefix}-${kind}`} width={12} height={12} patternUnits="userSpaceOnUse">
          <rect width={12} height={12} style={{ fill: `var(--fluid-${kind})` }} />
          <path d={MARKS[kind]} fill="none" stroke="var(--fluid-mark)" strokeWidth={1} strokeLinecap="round" />
        </pattern>
      ))}
    </defs>
  );
}

export const fluidFill = (prefix: string, kind: Kind) => `url("#${prefix}-${kind}")`;

/** A small piece of a fluid, beside its name. */
export function FluidSwatch({ prefix, kind }: { prefix: string; kind: Kind }) {
  return (
    <svg width={16} height={11} aria-hidden className="inline-block shrink-0 align-[-1px]">
      <FluidPatterns prefix={prefix} />
      <rect width={16} height={11} style={{ fill: fluidFill(prefix, kind) }} stroke="var(--mute)" strokeWidth={0.8} />
    </svg>
  );
}
