// The well to scale, and the way around it: click a string to work on it, drag, nudge or type over its shoe, its top of
// cement and a liner's top. On top stand the preventers and the wellhead.
import { useCallback, useId } from "react";
import { useBench, useDrawnStrings, useEvaluated, useSnapshot } from "../design/context";
import { ChartTable } from "../depth/ChartTable";
import { setCursor, useCursor } from "../depth/cursor";
import type { StringResult } from "../design/types";
import type { DepthScale } from "../depth/scale";
import { HEADER_PX } from "../depth/scale";
import { DEPTH_CLASS } from "../depth/useDepthView";
import { useUnits } from "../ui/units";
import { AXIS_PX, SECTION_PX, pathPlan, shapes } from "./geometry";
import { Ghosts } from "./Ghosts";
import { BreakGrip, ShoeGrip, TopGrip } from "./Grips";
import { GroundBelow, NamesAbove, StringsDrawing } from "./SectionDrawing";
import { DrillReplay } from "./DrillReplay";
import { JobFluids } from "./JobFluids";
import { RunGear } from "./RunGear";
import { Sea } from "./Sea";
import { sectionTable } from "./table";
import { TodayLine } from "./TodayLine";
import { TopGear } from "./TopGear";
import { CompletionLayer } from "./CompletionLayer";
import { StringNames } from "./StringNames";
import { asThen, useStandingThen } from "./states";
import { useShown } from "../steps/completion/shownState";

export function Section({ scale }: { scale: DepthScale }) {
  const ground = useEvaluated((e) => e.ground);
  const basis = useEvaluated((e) => e.basis);
  const sea = useEvaluated((e) => e.sea);
  const { goTo } = useBench();
  const prefix = useId();
  const bare = useStandingThen()?.stack_on === false;
  const onStack = useCallback(() => {
    goTo("preventers", "/preventers");
  }, [goTo]);
  const onZone = useCallback(
    (index: number) => {
      goTo("ground", `/ground/zones/${index}/name`);
    },
    [goTo],
  );
  if (ground === undefined || basis === undefined) return null;
  const paper = { width: SECTION_PX, height: scale.heightPx };
  return (
    <div
      className="relative shrink-0 select-none"
      style={paper}
      role="group"
      aria-label="Section of the well"
      data-testid="section"
      data-picture
      onPointerMove={(event) => {
        setCursor(scale.md(event.clientY - event.currentTarget.getBoundingClientRect().top));
      }}
      onPointerLeave={() => {
        setCursor(null);
      }}
    >
      <svg {...paper} className={`own-layer absolute inset-0 ${DEPTH_CLASS}`}>
        <GroundBelow zones={ground.zones} scale={scale} prefix={prefix} onZone={onZone} />
        {sea !== undefined && <Sea basis={basis} sea={bare ? { ...sea, riser: null } : sea} scale={scale} onStack={onStack} />}
      </svg>
      <svg {...paper} className={`own-layer pointer-events-none absolute inset-0 ${DEPTH_CLASS}`}>
        <StringsThen scale={scale} prefix={prefix} />
      </svg>
      <JobFluids scale={scale} basis={basis} />
      <DrillReplay scale={scale} />
      <CompletionLayer scale={scale} basis={basis} />
      <svg {...paper} className="own-layer pointer-events-none absolute inset-0">
        <NamesAbove zones={ground.zones} basis={basis} scale={scale} />
      </svg>
      <SectionCursor scale={scale} />
      <SectionTable />
    </div>
  );
}

/** The strings as they stand; with barriers or plugs those that stand then, named and with nothing to grab. */
function StringsThen(props: { scale: DepthScale; prefix: string }) {
  const strings = useDrawnStrings();
  const basis = useEvaluated((e) => e.basis)!;
  const then = useStandingThen();
  if (then === null) return <Strings {...props} />;
  const standing = asThen(strings, then);
  return (
    <>
      <StringsDrawing evaluation={{ strings: standing, basis }} {...props} />
      <StringNames strings={standing} scale={props.scale} />
    </>
  );
}

/** What moves when a shoe is dragged. */
function Strings({ scale, prefix }: { scale: DepthScale; prefix: string }) {
  const strings = useDrawnStrings();
  const basis = useEvaluated((e) => e.basis)!;
  const pipe = useEvaluated((e) => e.pipe.strings)!;
  const running = useEvaluated((e) => e.running.strings)!;
  const { selected, select } = useBench();
  const underSea = useEvaluated((e) => e.sea.riser != null || (e.basis.at_sea && e.strings[0]?.top_md_ft !== 0)) ?? false;
  const completed = useShown()?.kind === "tubing";
  const placed = shapes(strings, scale);
  const plan = scale.axis.kind === "md" ? null : pathPlan(basis, scale);
  const xAt = (mdFt: number, half: number, index: number) => (plan ? plan.x(mdFt) : placed[index]!.centre) + half;
  return (
    <g className="pointer-events-auto">
      <StringsDrawing evaluation={{ strings, basis }} scale={scale} prefix={prefix} selected={selected} onString={select} />
      <RunGear strings={strings} rows={running} placed={placed} scale={scale} plan={plan} />
      <Ghosts strings={strings} placed={placed} scale={scale} xAt={xAt} />
      {scale.topFt === 0 && !underSea && !completed && <TopGear y={HEADER_PX} centre={plan ? plan.x(0) : (placed[0]?.centre ?? 0)} />}
      {placed.map((shape) => {
        const string = strings[shape.index]!;
        const outer = plan ? 10 : Math.max(shape.hole ?? 0, shape.pipe ?? 0);
        return (
          <g key={shape.index}>
            {(["cement", "tail", "collar", "upper"] as const).map((what) => (
              <TopGrip
                key={what}
                index={shape.index}
                string={string}
                scale={scale}
                x={xAt(gripMdFt(what, string), outer, shape.index)}
                what={what}
              />
            ))}
            {pipe[shape.index]?.chosen &&
              pipe[shape.index]!.sections.slice(0, -1).map((part, place) => (
                <BreakGrip
                  key={place}
                  index={shape.index}
                  place={place}
                  mdFt={part.bottom_md_ft}
                  string={string}
                  scale={scale}
                  x={xAt(part.bottom_md_ft, -(shape.pipe ?? outer), shape.index)}
                />
              ))}
            {string.run === "liner" && (
              <TopGrip index={shape.index} string={string} scale={scale} x={xAt(string.top_md_ft, outer, shape.index)} what="liner" />
            )}
            {scale.shows(string.shoe_md_ft) && (
              <ShoeGrip shape={shape} string={string} scale={scale} shoeX={xAt(string.shoe_md_ft, -outer, shape.index)} />
            )}
          </g>
        );
      })}
      <TodayLine scale={scale} />
    </g>
  );
}

function gripMdFt(what: "cement" | "tail" | "collar" | "upper", string: StringResult): number {
  const held = { collar: string.stage_collar_md_ft, upper: string.upper_collar_md_ft, cement: null, tail: null }[what];
  return held ?? string.cement_top_md_ft ?? 0;
}

function SectionTable() {
  const evaluation = useSnapshot("evaluation")!;
  const strings = useDrawnStrings();
  const units = useUnits();
  return (
    <ChartTable
      title="Section of the well"
      data={() => sectionTable({ ...evaluation, strings }, units)}
      className="absolute top-2 right-2"
    />
  );
}

function SectionCursor({ scale }: { scale: DepthScale }) {
  const depthFt = useCursor();
  const units = useUnits();
  if (depthFt === null || !scale.shows(depthFt)) return null;
  const y = scale.y(depthFt);
  return (
    <svg data-passing width={SECTION_PX} height={18} className="own-layer pointer-events-none absolute left-0" style={{ top: y - 9 }}>
      <line x1={AXIS_PX} x2={SECTION_PX} y1={9} y2={9} stroke="var(--gold)" strokeWidth={1.2} />
      <rect x={0} y={0} width={AXIS_PX} height={18} rx={3} fill="var(--gold)" />
      <text x={AXIS_PX - 4} y={13} fontSize={11.5} fontWeight={600} textAnchor="end" style={{ fill: "var(--on-gold)" }}>
        {units.number(scale.axis.toAxis(depthFt), "depth", 0)}
      </text>
    </svg>
  );
}
