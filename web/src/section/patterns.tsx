// Rock patterns, drawn for this product. Each id is made unique so that two drawings can stand on one page.
import type { ZoneBand } from "../design/types";

const MARKS: Record<ZoneBand["rock"], string> = {
  gravel:
    "M3 5a2 1.5 0 1 0 4 0a2 1.5 0 1 0-4 0M13 11a2.4 1.8 0 1 0 4.8 0a2.4 1.8 0 1 0-4.8 0M4 16a1.5 1.2 0 1 0 3 0a1.5 1.2 0 1 0-3 0M14 3h.6",
  sand: "M3 4h1M11 3h1M17 8h1M7 10h1M2 15h1M13 15h1M18 18h1M8 18h1",
  clay: "M2 5h4M12 9h4M5 15h4M15 18h3",
  shale: "M0 4h7M11 4h6M4 9h9M16 9h4M0 14h5M9 14h8M3 18.5h7",
  limestone: "M0 5h20M0 15h20M5 5v10M15 15v5M15 0v5",
  dolomite: "M0 5h20M0 15h20M6 5l-3 10M16 15l-2 5M17 0l-2 5",
  salt: "M3 3l3 3M6 3l-3 3M13 12l3 3M16 12l-3 3",
  marl: "M0 6h8M12 6h3M3 14h10M17 14v4M9 6v3",
  coal: "M0 5h20M0 10h20M0 15h20",
  basement: "M4 2v6M1 5h6M14 11v6M11 14h6",
};
const ROCKS = Object.keys(MARKS) as ZoneBand["rock"][];

export function RockPatterns({ prefix }: { prefix: string }) {
  return (
    <defs>
      {ROCKS.map((rock) => (
        <pattern key={rock} id={`${prefix}-${rock}`} width={20} height={20} patternUnits="userSpaceOnUse">
          <rect width={20} height={20} style={{ fill: `var(--${rock})` }} />
          <path d={MARKS[rock]} fill="none" stroke="var(--pattern)" strokeWidth={0.9} strokeLinecap="round" />
        </pattern>
      ))}
      <pattern id={`${prefix}-cement`} width={6} height={6} patternUnits="userSpaceOnUse">
        <rect width={6} height={6} style={{ fill: "var(--cement)" }} />
        <path d="M1 1.5h1M4 4.5h1" stroke="var(--sheet)" strokeWidth={1} />
      </pattern>
    </defs>
  );
}
