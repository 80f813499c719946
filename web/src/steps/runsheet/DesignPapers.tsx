// What is taken away of the whole design, once it is saved.
import type { LucideIcon } from "lucide-react";
import { useBench, useSnapshot } from "../../design/context";
import { useUnits } from "../../ui/units";

export interface DesignPaper {
  file: string;
  text: string;
  Icon: LucideIcon;
  /** Why there is none, where there is none. */
  missing?: string;
}

export function DesignPapers({ papers }: { papers: readonly DesignPaper[] }) {
  const { session } = useBench();
  const saved = useSnapshot("save") === "saved";
  const units = useUnits();
  return (
    <>
      {papers.map(({ file, text, Icon, missing }) => {
        const ready = saved && missing === undefined;
        return (
          <a
            key={file}
            href={ready ? `/api/designs/${session.id}/${file}?${units.query}` : undefined}
            aria-disabled={!ready}
            title={ready ? text : (missing ?? "waits until the last edit is saved")}
            className={`no-print inline-flex items-center gap-1.5 rounded border border-rule px-2 py-0.5 text-[12px] leading-5 hover:border-petrol ${ready ? "" : "opacity-50"}`}
          >
            <Icon size={13} aria-hidden /> {text}
          </a>
        );
      })}
    </>
  );
}
