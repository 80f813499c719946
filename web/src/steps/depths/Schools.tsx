// The two schools side by side, the freedom of each shoe between them, and what would free a program where none exists.
import { useBench, useSnapshot } from "../../design/context";
import type { ProposedShoe } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { usePrograms } from "./usePrograms";

export function Schools() {
  const { session } = useBench();
  const { programs, behind } = usePrograms();
  const units = useUnits();
  if (programs === undefined) return <Empty>Seeking every program with the fewest strings…</Empty>;
  const take = (shoes: readonly ProposedShoe[]) => {
    const strings = shoes.map((s) => ({ role: s.role, run: s.role === "conductor" ? "driven" : "cased", shoe_md_ft: s.md_ft }));
    session.edit([{ path: "/strings", value: strings }]);
  };
  if (programs.sections === 0) {
    return (
      <section aria-label="No program">
        <p className="font-semibold">
          {programs.cut && programs.failure.length > 0 ? "Not every program was sought." : "No program exists."}
        </p>
        <p className="mb-2 text-mute">{units.words(programs.failure)}</p>
        {programs.reliefs.length > 0 && <p className="mb-1 text-mute">Any one of these frees one; each was tried:</p>}
        <div className="flex flex-col items-start gap-1.5">
          {programs.reliefs.map((relief, i) => (
            <Button
              key={i}
              kind="act"
              data-relief
              onClick={() => {
                session.edit(relief.changes);
              }}
            >
              {units.words(relief.label)}
            </Button>
          ))}
        </div>
        {programs.bottom_up.length > 0 && (
          <>
            {programs.bottom_up.map((shoe, i) => (
              <ShoeOfSchools key={i} bottomUp={shoe} topDown={undefined} freedom={undefined} />
            ))}
            <Button
              className="mt-2"
              onClick={() => {
                take(programs.bottom_up);
              }}
            >
              Start from bottom up
            </Button>
          </>
        )}
        {programs.reliefs_cut && programs.bottom_up.length === 0 && (
          <p className="mt-1 text-mute">Not searched further: not every change of a rule was tried.</p>
        )}
        {!programs.reliefs_cut && programs.reliefs.length === 0 && !behind && programs.failure.length > 0 && (
          <p className="text-mute">No single change of a rule frees one.</p>
        )}
      </section>
    );
  }
  return (
    <div className={behind ? "opacity-60" : ""} aria-busy={behind}>
      <p className="mb-2 text-[12px] text-mute">
        {programs.sections} sections below the conductor are the fewest. Each shoe is free between its bottom-up and top-down depth, as far
        as the others leave it.
      </p>
      {programs.bottom_up.map((shoe, i) => (
        <ShoeOfSchools key={i} bottomUp={shoe} topDown={programs.top_down[i]} freedom={programs.freedom[i - 1]} />
      ))}
      <p className="mt-2 flex flex-wrap gap-1.5">
        <Button
          onClick={() => {
            take(programs.bottom_up);
          }}
        >
          Start from bottom up
        </Button>
        <Button
          onClick={() => {
            take(programs.top_down);
          }}
        >
          Start from top down
        </Button>
        <Button
          onClick={() => {
            session.edit([{ path: "/strings", value: [] }]);
          }}
          title="Drop the decided strings; the program then follows the ground by the method of policy"
        >
          Let it follow the ground
        </Button>
      </p>
    </div>
  );
}

interface ShoeOfSchoolsProps {
  bottomUp: ProposedShoe;
  topDown: ProposedShoe | undefined;
  freedom: { shallow_md_ft: number; deep_md_ft: number } | undefined;
}

function ShoeOfSchools({ bottomUp, topDown, freedom }: ShoeOfSchoolsProps) {
  const units = useUnits();
  const schools = [
    ["bottom up", bottomUp],
    ["top down", topDown],
  ] as const;
  return (
    <section aria-label={bottomUp.role} className="mb-2 border-l-[3px] border-rule pl-2 text-[12.5px]">
      <h3 className="flex gap-2 font-semibold">
        {bottomUp.role}
        {freedom && (
          <span className="ml-auto font-normal text-mute">
            free {units.number(freedom.shallow_md_ft, "depth")} to {units.text(freedom.deep_md_ft, "depth")}
          </span>
        )}
      </h3>
      {schools.map(
        ([school, shoe]) =>
          shoe && (
            <p key={school} className="leading-snug">
              <span className="inline-block w-16 text-mute">{school}</span>{" "}
              <span className="font-semibold">{units.text(shoe.md_ft, "depth")}</span>{" "}
              <span className="text-mute">
                {shoe.rule}. {units.words(shoe.reason)}
              </span>
            </p>
          ),
      )}
    </section>
  );
}

/** Beside each shoe, the depths between which it may stand; drawn where the program has as many strings as the fewest. */
export function FreedomBrackets({ scale, x }: { scale: DepthScale; x: number }) {
  const { programs } = usePrograms();
  const evaluation = useSnapshot("evaluation");
  const { selected } = useBench();
  if (programs === undefined || evaluation?.strings.length !== programs.freedom.length + 2) return null;
  return programs.freedom.map((free, i) => {
    const [top, bottom] = [scale.y(free.shallow_md_ft), scale.y(free.deep_md_ft)];
    const colour = selected === i + 1 ? "var(--petrol)" : "var(--mute)";
    return (
      <g key={i} pointerEvents="none">
        <path d={`M${x - 5},${top}h5V${bottom}h-5`} fill="none" stroke={colour} strokeWidth={selected === i + 1 ? 2 : 1.3} />
      </g>
    );
  });
}
