// What stands on the well: the stack on the string in hand, on the wellhead. A sketch of order, not of size.
import { useBench, useEvaluated } from "../design/context";

const WIDTHS: Record<string, number> = {
  annular: 26,
  diverter: 30,
  "drilling spool": 14,
};
const RAMS_PX = 34;
const MOST_PX = 50;

export function TopGear({ y, centre }: { y: number; centre: number }) {
  const { selected, goTo } = useBench();
  const stack = useEvaluated((e) => e.preventers.strings[selected]);
  if (stack === undefined) return null;
  const elements = [...stack.elements].reverse();
  const each = Math.min(10, (MOST_PX - 10) / Math.max(1, elements.length));
  const words = elements.length ? elements.map((e) => e.title).join(", ") : "no stack on this string";
  return (
    <g
      aria-label={`On top: ${words}`}
      role="img"
      className="cursor-pointer"
      onClick={() => {
        goTo(elements.length ? "preventers" : "wellhead", "");
      }}
    >
      <rect x={centre - 11} y={y - 9} width={22} height={9} fill="var(--mute)" />
      {elements.map((element, i) => {
        const width = WIDTHS[element.element] ?? RAMS_PX;
        const top = y - 10 - each * (elements.length - i);
        return (
          <rect
            key={i}
            x={centre - width / 2}
            y={top}
            width={width}
            height={each - 1.5}
            rx={element.element === "annular" ? 4 : 1}
            fill="var(--mute)"
          />
        );
      })}
    </g>
  );
}
