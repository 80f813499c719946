// What is taken away of the string in hand, once it is saved.
import type { LucideIcon } from "lucide-react";
import { useBench, useSnapshot } from "../design/context";
import { useUnits } from "./units";

export interface Paper {
  file: string;
  text: string;
  Icon: LucideIcon;
}

export function PaperLinks({ papers }: { papers: readonly Paper[] }) {
  const { session, selected } = useBench();
  const ready = useSnapshot("save") === "saved";
  const units = useUnits();
  return (
    <p className="my-1.5 flex flex-wrap gap-1.5">
      {papers.map(({ file, text, Icon }) => (
        <a
          key={file}
          href={ready ? `/api/designs/${session.id}/strings/${selected}/${file}?${units.query}` : undefined}
          aria-disabled={!ready}
          title={ready ? text : "waits until the last edit is saved"}
          className={`inline-flex items-center gap-1.5 rounded border border-rule px-2 py-0.5 text-[12px] leading-5 hover:border-petrol ${ready ? "" : "opacity-50"}`}
        >
          <Icon size={13} aria-hidden /> {text}
        </a>
      ))}
    </p>
  );
}
