// A well at a glance: its strings telescoping to total depth.
import type { Summary } from "../design/types";

const WIDTH_PX = 44;
const HEIGHT_PX = 38;

export function MiniSection({ summary }: { summary: Summary }) {
  const { strings, total_md_ft: total } = summary;
  const widest = Math.max(1, ...strings.map((s) => s.od_in ?? 0));
  const y = (md: number) => 1 + (md / Math.max(1, total)) * (HEIGHT_PX - 2);
  const middle = WIDTH_PX / 2;
  return (
    <svg width={WIDTH_PX} height={HEIGHT_PX} aria-hidden className="block">
      <line x1={middle} x2={middle} y1={1} y2={HEIGHT_PX - 1} stroke="var(--rule)" strokeDasharray="2 2" />
      {strings.map((s, i) => {
        const half = s.od_in === null ? 2 : (s.od_in / widest) * (middle - 3);
        return (
          <path
            key={i}
            d={`M${middle - half},${y(s.top_md_ft)}V${y(s.shoe_md_ft)}h-2 M${middle + half},${y(s.top_md_ft)}V${y(s.shoe_md_ft)}h2`}
            fill="none"
            stroke="var(--steel)"
            strokeWidth={1.3}
          />
        );
      })}
    </svg>
  );
}
