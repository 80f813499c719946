// A part of the tree's run to scale: a gate valve with its wheel or its actuator, the cross with its wing valves, the cap.
import type { StackItem } from "../design/types";
import type { StackScale } from "./layout";

interface Props {
  item: StackItem;
  scale: StackScale;
  centre: number;
  lit: boolean;
}

const WING_SHARE = 1.25;

export function TreePart({ item, scale, centre, lit }: Props) {
  const top = scale.y(item.top_in);
  const high = Math.max(2, scale.y(item.bottom_in) - top);
  const half = (item.od_in / 2) * scale.pxPerIn;
  const bore = Math.min(half * 0.5, ((item.bore_in ?? 3) / 2) * scale.pxPerIn);
  const body = half * 0.62;
  const middle = top + high / 2;
  const valve = (x: number, across: boolean) => {
    const r = Math.min(high * 0.3, body * 0.7);
    return across
      ? `M${x - r},${middle - r} L${x + r},${middle + r} V${middle - r} L${x - r},${middle + r} Z`
      : `M${x - r},${middle - r} H${x + r} L${x - r},${middle + r} H${x + r} Z`;
  };
  const stem = item.note.some((part) => typeof part === "string" && part.includes("shuts by itself"));
  const line = { stroke: lit ? "var(--petrol)" : "var(--steel)", strokeWidth: lit ? 2 : 1 };
  if (item.kind === "tree cap")
    return (
      <path
        d={`M${centre - body},${top + high} V${top + high * 0.5} Q${centre},${top - high * 0.2} ${centre + body},${top + high * 0.5} V${top + high} Z`}
        fill="var(--mute)"
        {...line}
      />
    );
  const wings = item.kind === "tree cross" ? item.outlets : 0;
  return (
    <g fill="var(--sheet)" {...line}>
      {[-1, 1].slice(2 - wings).map((side) => (
        <g key={side}>
          <rect
            x={side < 0 ? centre - half * WING_SHARE : centre + body}
            y={middle - high * 0.17}
            width={half * WING_SHARE - body}
            height={high * 0.34}
          />
          <path d={valve(centre + side * (half * WING_SHARE + body) * 0.5, true)} fill="var(--mute)" />
        </g>
      ))}
      <rect x={centre - body} y={top + 0.5} width={body * 2} height={high - 1} rx={2} />
      <rect x={centre - half} y={top} width={half * 2} height={Math.max(1.5, high * 0.1)} fill="var(--mute)" />
      <rect x={centre - half} y={top + high * 0.9} width={half * 2} height={Math.max(1.5, high * 0.1)} fill="var(--mute)" />
      <rect x={centre - bore} y={top} width={bore * 2} height={high} fill="var(--hole)" stroke="none" />
      {item.kind === "tree valve" && (
        <>
          <path d={valve(centre, false)} fill="var(--mute)" />
          <line x1={centre + body} x2={centre + body * 1.5} y1={middle} y2={middle} />
          {stem ? (
            <rect x={centre + body * 1.5} y={middle - high * 0.24} width={body * 0.7} height={high * 0.48} rx={3} fill="var(--petrol)" />
          ) : (
            <line x1={centre + body * 1.5} x2={centre + body * 1.5} y1={middle - high * 0.24} y2={middle + high * 0.24} strokeWidth={2} />
          )}
        </>
      )}
    </g>
  );
}
