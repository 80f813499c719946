// How depth is drawn: along hole or in TVD, and back to the whole well after zooming.
import { Magnet } from "lucide-react";
import { usePreferences } from "../preferences";

const BUTTON =
  "rounded border border-rule bg-sheet px-1 text-[11px] leading-[17px] hover:border-petrol aria-pressed:border-petrol aria-pressed:text-petrol aria-pressed:font-semibold";

export function AxisButtons({ zoomedIn, fit }: { zoomedIn: boolean; fit: () => void }) {
  const { axis, snap, prefer } = usePreferences();
  return (
    <div className="no-print absolute top-1.5 left-1.5 z-10 flex gap-0.5" role="group" aria-label="Depth axis">
      {(["md", "tvd"] as const).map((kind) => (
        <button
          key={kind}
          type="button"
          className={BUTTON}
          aria-pressed={axis === kind}
          title={
            kind === "md"
              ? "Depth along hole; the section is stretched along it (a)"
              : "True vertical depth; the section shows the path (a)"
          }
          onClick={() => {
            prefer({ axis: kind });
          }}
        >
          {kind.toUpperCase()}
        </button>
      ))}
      <button
        type="button"
        className={BUTTON}
        aria-pressed={snap}
        aria-label="Snap what is dragged"
        title="Snap to boundaries and round numbers while dragging (s); Alt does the opposite while held"
        onClick={() => {
          prefer({ snap: !snap });
        }}
      >
        <Magnet size={11} aria-hidden />
      </button>
      {zoomedIn && (
        <button type="button" className={BUTTON} title="Show the whole well (double click, or 0)" onClick={fit}>
          Fit
        </button>
      )}
    </div>
  );
}
