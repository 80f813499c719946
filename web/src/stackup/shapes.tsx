// One piece of the stack-up as it looks: pipe, head and spool with their flanges, preventers, tree. Drawn to scale about the bore.
import type { StackItem } from "../design/types";
import type { StackScale } from "./layout";
import { TreePart } from "./TreePart";

const PIPE = new Set(["conductor", "casing"]);
const HEAD_FLANGE_SHARE = 0.16;
const BODY_SHARE = 0.7;
const STUB_IN = 9;
const STUB_HIGH_IN = 5;

export interface Closed {
  /** What is across, and how wide. */
  odIn: number;
  /** How it closes: on the pipe, on itself, cut through it, or not. */
  how: "on" | "shut" | "cut" | "open";
}

interface ShapeProps {
  item: StackItem;
  scale: StackScale;
  centre: number;
  lit: boolean;
  closed: Closed | null;
}

export function Shape(props: ShapeProps) {
  const { item } = props;
  if (PIPE.has(item.kind)) return <Pipe {...props} />;
  if (item.kind === "hanger") return <Hanger {...props} />;
  if (item.kind === "seal") return <Seal {...props} />;
  if (item.kind === "protector") return <Sleeve {...props} />;
  if (item.kind === "base plate") return <Plate {...props} />;
  if (item.kind === "tree") return <Tree {...props} />;
  if (item.kind.startsWith("tree ")) return <TreePart {...props} />;
  if (item.step === "preventers") return <Element {...props} />;
  return <Piece {...props} />;
}

function box({ item, scale, centre }: ShapeProps) {
  const top = scale.y(item.top_in);
  const high = Math.max(1, scale.y(item.bottom_in) - top);
  const half = (item.od_in / 2) * scale.pxPerIn;
  const bore = Math.min(half * 0.92, ((item.bore_in ?? item.od_in * 0.6) / 2) * scale.pxPerIn);
  return { top, high, half, bore, left: centre - half };
}

const stroke = (lit: boolean) => ({ stroke: lit ? "var(--petrol)" : "var(--steel)", strokeWidth: lit ? 2 : 1 });

/** Two walls of steel with the bore between. */
function Pipe(props: ShapeProps) {
  const { top, high, half, bore } = box(props);
  const wall = Math.max(1.5, half - bore);
  return (
    <g fill="var(--mute)" stroke={props.lit ? "var(--petrol)" : "none"}>
      <rect x={props.centre - half} y={top} width={wall} height={high} />
      <rect x={props.centre + half - wall} y={top} width={wall} height={high} />
    </g>
  );
}

/** Slips or a mandrel on its shoulder: a wedge on either side of the pipe, with its seal over it. */
function Hanger(props: ShapeProps) {
  const { top, high, half, bore } = box(props);
  const { centre, lit } = props;
  return (
    <g fill="var(--petrol)" fillOpacity={0.75} stroke={lit ? "var(--petrol)" : "none"} strokeWidth={2}>
      {[-1, 1].map((side) => (
        <path
          key={side}
          d={`M${centre + side * bore} ${top + high} L${centre + side * bore} ${top} H${centre + side * half} V${top + high * 0.45} Z`}
        />
      ))}
    </g>
  );
}

/** The secondary seal around a stub: two packings with the test port's room between. */
function Seal(props: ShapeProps) {
  const { top, high, half, bore } = box(props);
  const { centre, lit } = props;
  return (
    <g fill="var(--ink)" stroke={lit ? "var(--petrol)" : "none"}>
      {[-1, 1].flatMap((side) =>
        [0.05, 0.65].map((at) => (
          <rect
            key={`${side} ${at}`}
            x={side < 0 ? centre - half : centre + bore}
            y={top + high * at}
            width={Math.max(1, half - bore)}
            height={high * 0.3}
          />
        )),
      )}
    </g>
  );
}

/** A sleeve that lines the housing's bore while it is drilled through: its wall on either side. */
function Sleeve(props: ShapeProps) {
  const { top, high, half, bore } = box(props);
  const { centre, lit } = props;
  const wall = Math.max(2, half - bore);
  return (
    <g fill="var(--gold)" fillOpacity={0.35} stroke={lit ? "var(--petrol)" : "var(--gold)"} strokeDasharray={lit ? undefined : "2 1.5"}>
      <rect x={centre - half} y={top} width={wall} height={high} />
      <rect x={centre + half - wall} y={top} width={wall} height={high} />
    </g>
  );
}

function Plate(props: ShapeProps) {
  const { top, high, half, left } = box(props);
  return <rect x={left} y={top} width={half * 2} height={Math.max(2, high)} fill="var(--mute)" {...stroke(props.lit)} />;
}

/** A head or a spool: flanges at its faces, a body between them, outlets at its sides. */
function Piece(props: ShapeProps) {
  const { top, high, half, bore } = box(props);
  const { centre, item, lit, scale } = props;
  const flange = Math.min(high * HEAD_FLANGE_SHARE + 1, high / 3);
  const body = half * BODY_SHARE;
  const bottom = item.kind === "casing head housing" || item.kind === "multi-bowl head" ? body : half;
  return (
    <g fill="var(--sheet)" {...stroke(lit)}>
      {item.outlets > 0 && <Outlets {...props} body={body} at={top + high / 2} />}
      <rect x={centre - body} y={top + flange} width={body * 2} height={high - 2 * flange} />
      <rect x={centre - half} y={top} width={half * 2} height={flange} fill="var(--mute)" />
      <rect x={centre - bottom} y={top + high - flange} width={bottom * 2} height={flange} fill="var(--mute)" />
      {bottom === half && <Rings centre={centre} at={top + high} radius={(bore + half) / 2} />}
      {bottom === body && <Welds centre={centre} at={top + high} radius={body} port={scale.pxPerIn * 2.2} />}
      <Bore centre={centre} bore={bore} top={top} high={high} bowl={item.kind !== "adapter" ? scale.pxPerIn * 3 : 0} />
    </g>
  );
}

/** The welds of a slip-on head, and the port between them through which they are tested. */
function Welds({ centre, at, radius, port }: { centre: number; at: number; radius: number; port: number }) {
  return (
    <>
      {[-1, 1].map((side) => (
        <path key={side} d={`M${centre + side * radius} ${at} h${side * -6} l0 5 Z`} fill="var(--ink)" stroke="none" />
      ))}
      <circle cx={centre + radius - 2} cy={at - port} r={1.8} fill="var(--gold)" stroke="none" />
    </>
  );
}

/** The ring gasket under a face. */
function Rings({ centre, at, radius }: { centre: number; at: number; radius: number }) {
  return (
    <>
      {[-1, 1].map((side) => (
        <path key={side} d={`M${centre + side * radius - 3} ${at} l3 -2.5 l3 2.5 l-3 2.5 Z`} fill="var(--gold)" stroke="none" />
      ))}
    </>
  );
}

function Bore({ centre, bore, top, high, bowl }: { centre: number; bore: number; top: number; high: number; bowl: number }) {
  const deep = Math.min(high * 0.45, bowl * 2.6);
  const narrow = bore * 0.86;
  const path =
    `M${centre - bore} ${top} V${top + deep} L${centre - narrow} ${top + deep + bowl * 0.5} V${top + high}` +
    `H${centre + narrow} V${top + deep + bowl * 0.5} L${centre + bore} ${top + deep} V${top} Z`;
  return <path d={path} fill="var(--hole)" stroke="none" />;
}

function Outlets({ centre, scale, body, at }: ShapeProps & { body: number; at: number }) {
  const long = STUB_IN * scale.pxPerIn;
  const high = STUB_HIGH_IN * scale.pxPerIn;
  return (
    <>
      {[-1, 1].map((side) => (
        <g key={side} strokeWidth={1} stroke="var(--steel)">
          <rect x={side < 0 ? centre - body - long * 0.4 : centre + body} y={at - high / 4} width={long * 0.4} height={high / 2} />
          <path
            d={`M${centre + side * (body + long * 0.4)} ${at - high / 2} L${centre + side * (body + long)} ${at + high / 2} V${at - high / 2} L${centre + side * (body + long * 0.4)} ${at + high / 2} Z`}
            fill="var(--mute)"
          />
        </g>
      ))}
    </>
  );
}

function Element(props: ShapeProps) {
  const { top, high, half, bore } = box(props);
  const { centre, item, lit, closed } = props;
  const gap = Math.min(3, high * 0.06);
  const round = item.kind === "annular" || item.kind === "diverter" ? Math.min(high * 0.32, half * 0.5) : 2;
  const ram = item.kind.endsWith("rams");
  const spool = item.kind.endsWith("spool") || item.kind === "adapter" || item.kind === "connector";
  const body = ram ? half * 0.56 : spool ? half * 0.72 : half;
  return (
    <g fill="var(--sheet)" {...stroke(lit)}>
      {ram && <rect x={centre - half} y={top + high * 0.22} width={half * 2} height={high * 0.56} rx={2} fill="var(--rule)" />}
      <rect
        x={centre - body}
        y={top + gap / 2}
        width={body * 2}
        height={high - gap}
        rx={round}
        fill={lit ? "var(--paper)" : "var(--sheet)"}
      />
      <rect x={centre - bore} y={top} width={bore * 2} height={high} fill="var(--hole)" stroke="none" />
      {closed !== null && <Blocks {...props} top={top} high={high} bore={bore} closed={closed} />}
      {spool && (
        <>
          <rect x={centre - half} y={top} width={half * 2} height={Math.max(2, high * 0.12)} fill="var(--mute)" />
          <rect x={centre - half} y={top + high * 0.88} width={half * 2} height={Math.max(2, high * 0.12)} fill="var(--mute)" />
        </>
      )}
    </g>
  );
}

/** What an element brings into the bore: rubber of an annular, blocks of a ram. */
function Blocks({
  item,
  scale,
  centre,
  top,
  high,
  bore,
  closed,
}: ShapeProps & { top: number; high: number; bore: number; closed: Closed }) {
  const pipe = (closed.odIn / 2) * scale.pxPerIn;
  const to = closed.how === "on" ? Math.min(pipe, bore) : closed.how === "open" ? Math.min(bore * 0.97, Math.max(pipe, bore * 0.8)) : 0;
  const round = item.kind === "annular" || item.kind === "diverter";
  const share = round ? 0.62 : 0.36;
  const colour = closed.how === "open" ? "var(--gold)" : "var(--petrol)";
  return (
    <g fill={colour} stroke="none">
      {[-1, 1].map((side) => (
        <rect
          key={side}
          x={side < 0 ? centre - bore : centre + to}
          y={top + (high * (1 - share)) / 2}
          width={Math.max(0, bore - to)}
          height={high * share}
          rx={round ? 4 : 0}
        />
      ))}
    </g>
  );
}

/** Master valves in the run, a cross with its wings, a cap. */
function Tree(props: ShapeProps) {
  const { top, high, half, bore } = box(props);
  const { centre, lit } = props;
  const run = Math.max(bore * 1.2, half * 0.22);
  const wing = top + high * 0.34;
  const valve = (cy: number, cx: number, across: boolean) => (
    <path
      key={`${cx},${cy}`}
      d={
        across
          ? `M${cx - run} ${cy - run * 0.8} L${cx + run} ${cy + run * 0.8} V${cy - run * 0.8} L${cx - run} ${cy + run * 0.8} Z`
          : `M${cx - run} ${cy - run * 0.8} H${cx + run} L${cx - run} ${cy + run * 0.8} H${cx + run} Z`
      }
      fill="var(--mute)"
    />
  );
  return (
    <g fill="var(--sheet)" {...stroke(lit)}>
      <rect x={centre - run * 0.7} y={top} width={run * 1.4} height={high} />
      <rect x={centre - half} y={wing - run * 0.5} width={half * 2} height={run} />
      {valve(top + high * 0.86, centre, false)}
      {valve(top + high * 0.62, centre, false)}
      {valve(top + high * 0.12, centre, false)}
      {valve(wing, centre - half + run, true)}
      {valve(wing, centre + half - run, true)}
    </g>
  );
}
