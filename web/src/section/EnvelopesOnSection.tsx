// Both envelopes of a state on the section: each element where it stands, with the number that it has in the list.
import type { Basis, BarrierElement, StateRow, StringResult } from "../design/types";
import { DepthClip } from "../depth/DepthClip";
import type { DepthScale } from "../depth/scale";
import { HEADER_PX } from "../depth/scale";
import type { EnvelopeName } from "../steps/completion/envelopes";
import { ENVELOPE } from "../steps/completion/envelopes";
import { Fill } from "./fills";
import { AXIS_PX, CENTRE, SECTION_PX, halfPxPerInch, pathPlan, spread } from "./geometry";
import { asThen } from "./states";

interface Props {
  scale: DepthScale;
  basis: Basis;
  strings: readonly StringResult[];
  state: StateRow;
}

const ROUND_PX = 8;
const SIDE_PX = 62;

export function EnvelopesOnSection({ scale, basis, strings, state }: Props) {
  const then = asThen(strings, state);
  const numbered = state.envelopes.flatMap((envelope, k) =>
    envelope.elements.map((element, i) => ({
      element,
      name: envelope.name,
      number: i + 1 + (k === 0 ? 0 : state.envelopes[0]!.elements.length),
    })),
  );
  return (
    <>
      <DepthClip scale={scale} widthPx={SECTION_PX}>
        {[...numbered].sort(outsideIn).map(({ element, name, number }) => (
          <Shape key={number} element={element} name={name} strings={then} scale={scale} basis={basis} />
        ))}
      </DepthClip>
      {(["primary", "secondary"] as const).map((name) => (
        <Numbers key={name} name={name} rows={numbered.filter((row) => row.name === name)} scale={scale} basis={basis} />
      ))}
    </>
  );
}

const ORDER = ["annulus", "wall", "hole", "bore", "top"];

/** What stands further out is drawn first: along the path what is inside covers it. */
function outsideIn(a: { element: BarrierElement }, b: { element: BarrierElement }): number {
  return ORDER.indexOf(a.element.where) - ORDER.indexOf(b.element.where);
}

interface ShapeProps {
  element: BarrierElement;
  name: EnvelopeName;
  strings: readonly StringResult[];
  scale: DepthScale;
  basis: Basis;
}

/** Half widths of the pipe and the hole that an element stands in. */
function halves(element: BarrierElement, strings: readonly StringResult[], perIn: number): { pipe: number; hole: number } {
  const string = strings[Math.min(element.string ?? strings.length - 1, strings.length - 1)]!;
  const cased = strings.filter((s) => s.od_in !== null);
  const pipe = (string.od_in ?? cased[cased.length - 1]?.od_in ?? string.bit_in ?? 4) * perIn;
  return { pipe, hole: Math.max((string.bit_in ?? 0) * perIn, pipe + 2) };
}

function Shape({ element, name, strings, scale, basis }: ShapeProps) {
  const { colour, dash } = ENVELOPE[name];
  const { pipe, hole } = halves(element, strings, halfPxPerInch(strings, scale.axis.kind !== "md"));
  const span = { from: element.from_md_ft, to: element.to_md_ft, scale, basis, fill: colour };
  if (element.where === "bore")
    return <Fill {...span} inner={0} outer={pipe * (name === "primary" ? 0.72 : 0.4)} opacity={0.4} stroke={colour} dash={dash} />;
  if (element.where === "hole") return <Fill {...span} inner={0} outer={hole} opacity={0.5} stroke={colour} dash={dash} />;
  if (element.where === "annulus") return <Fill {...span} inner={pipe} outer={hole} opacity={0.55} />;
  if (element.where === "wall") {
    const wall = element.string === null ? pipe * 0.45 : pipe;
    return <Fill {...span} inner={Math.max(wall - 1.2, 0.5)} outer={wall + 1.8} opacity={0.9} />;
  }
  return null;
}

interface NumbersProps {
  name: EnvelopeName;
  rows: readonly { element: BarrierElement; number: number }[];
  scale: DepthScale;
  basis: Basis;
}

/** Numbers of an envelope beside the well, each led to its place; what stands on top is led there. */
function Numbers({ name, rows, scale, basis }: NumbersProps) {
  const { colour, dash } = ENVELOPE[name];
  const side = name === "primary" ? -1 : 1;
  const x = Math.min(Math.max(CENTRE + side * SIDE_PX, AXIS_PX + ROUND_PX), SECTION_PX - ROUND_PX - 2);
  const plan = scale.axis.kind === "md" ? null : pathPlan(basis, scale);
  const placed = rows
    .map(({ element, number }) => {
      const middle = (element.from_md_ft + element.to_md_ft) / 2;
      const top = scale.y(element.from_md_ft);
      const y = element.where === "top" ? Math.max(top, HEADER_PX) : Math.min(Math.max(scale.y(middle), HEADER_PX), scale.heightPx - 20);
      return { number, y, at: plan?.x(middle) ?? CENTRE, element };
    })
    .sort((a, b) => a.y - b.y);
  const ys = spread(
    placed.map((p) => p.y),
    2 * ROUND_PX + 1,
    scale.heightPx - 24,
  );
  return (
    <g>
      {placed.map((p, i) => (
        <g key={p.number} data-element={p.element.key}>
          <line x1={x} x2={p.at} y1={ys[i]} y2={p.y} stroke={colour} strokeWidth={1} strokeDasharray={dash} />
          <circle
            cx={x}
            cy={ys[i]}
            r={ROUND_PX}
            fill={p.element.stands === "stands" ? colour : "var(--sheet)"}
            stroke={p.element.stands === "fails" ? "var(--brick)" : colour}
            strokeWidth={1.6}
            strokeDasharray={p.element.stands === "unknown" ? "2 2" : undefined}
          />
          <text
            x={x}
            y={ys[i]! + 3.5}
            fontSize={10}
            fontWeight={600}
            textAnchor="middle"
            style={{ fill: p.element.stands === "stands" ? "var(--on-petrol)" : p.element.stands === "fails" ? "var(--brick)" : colour }}
          >
            {p.number}
          </text>
        </g>
      ))}
    </g>
  );
}
