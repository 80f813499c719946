// A picture kept as a file, as lines or as pixels.
import { frameOf, savePng, saveSvg } from "./picture";

export function SavePicture({ title, frame }: { title: string; frame?: () => HTMLElement | null }) {
  return (
    <span className="no-print whitespace-nowrap" data-save-picture={title}>
      {(["SVG", "PNG"] as const).map((kind) => (
        <button
          key={kind}
          type="button"
          className="px-1 text-[11.5px] text-mute underline decoration-rule underline-offset-2 hover:text-petrol"
          aria-label={`${title} as ${kind}`}
          onClick={(event) => {
            const found = frame?.() ?? frameOf(event.currentTarget);
            if (found !== null) void (kind === "SVG" ? saveSvg : savePng)(found, title);
          }}
        >
          {kind}
        </button>
      ))}
    </span>
  );
}
