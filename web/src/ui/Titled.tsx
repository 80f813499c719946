// A table under its heading, with what an empty cell means.
import type { ReactNode } from "react";

export function Titled({ title, note, children }: { title: string; note?: string; children: ReactNode }) {
  return (
    <div>
      <h3 className="text-[13px] font-semibold">
        {title}
        {note !== undefined && <span className="ml-2 text-[11.5px] font-normal text-mute">{note}</span>}
      </h3>
      {children}
    </div>
  );
}
