// How the two envelopes look: by colour and by line, so that they are told apart without colour too.

export type EnvelopeName = "primary" | "secondary";

export const VERDICTS = { allowed: "allowed", forbidden: "not allowed", unknown: "not known" } as const;

export const ENVELOPE = {
  primary: { colour: "var(--petrol)", dash: undefined, ground: "var(--on-petrol)" },
  secondary: { colour: "var(--iris)", dash: "4 2.5", ground: "var(--on-petrol)" },
} as const;

export function EnvelopeMark({ name }: { name: EnvelopeName }) {
  const { colour, dash } = ENVELOPE[name];
  return (
    <svg width={18} height={12} aria-hidden className="inline-block shrink-0">
      <rect
        x={1.5}
        y={1.5}
        width={15}
        height={9}
        fill={colour}
        fillOpacity={0.3}
        stroke={colour}
        strokeWidth={1.6}
        strokeDasharray={dash}
      />
    </svg>
  );
}
