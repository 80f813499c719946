// Keeps what is drawn against depth inside the depth area of its drawing, while the axis is zoomed.
import type { ReactNode } from "react";
import { useId } from "react";
import type { DepthScale } from "./scale";
import { FOOTER_PX, HEADER_PX } from "./scale";

export function DepthClip({ scale, widthPx, children }: { scale: DepthScale; widthPx: number; children: ReactNode }) {
  const id = useId();
  return (
    <>
      <clipPath id={id}>
        <rect x={0} y={HEADER_PX - 0.5} width={widthPx} height={scale.heightPx - HEADER_PX - FOOTER_PX + 1} />
      </clipPath>
      <g style={{ clipPath: `url("#${id}")` }}>{children}</g>
    </>
  );
}
