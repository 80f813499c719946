// What stands under an editable table: the box of an empty one, why a paste was refused, the link to its export.
import { Download } from "lucide-react";
import { useEffect, useRef } from "react";
import { useBench, useSnapshot } from "../../design/context";
import { useReference } from "../../design/reference";
import type { Fault, Target } from "../../design/types";
import { Button } from "../Button";
import { useUnits } from "../units";

/** An empty table takes a paste too: there is no cell yet to paste into. */
export function EmptyPaste({
  text,
  place,
  onPaste,
  onAdd,
}: {
  text: string;
  place: string;
  onPaste: (text: string) => void;
  onAdd: () => void;
}) {
  return (
    <p className="py-2 text-mute">
      {text}{" "}
      <input
        className="cell mt-1 border-rule!"
        aria-label="Paste a block from a spreadsheet"
        data-place={place}
        placeholder="paste a block from a spreadsheet here"
        value=""
        onChange={() => undefined}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || !(event.ctrlKey || event.metaKey)) return;
          event.preventDefault();
          onAdd();
        }}
        onPaste={(event) => {
          event.preventDefault();
          onPaste(event.clipboardData.getData("text/plain"));
        }}
      />
    </p>
  );
}

export function PasteFaults({ faults, table, onDismiss }: { faults: readonly Fault[]; table: string; onDismiss: () => void }) {
  const reference = useReference();
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    box.current!.scrollIntoView({ block: "nearest" });
  }, [faults]);
  return (
    <section ref={box} role="alert" className="my-2 border-l-[3px] border-brick bg-paper px-2 py-1.5 text-[12px]">
      <p className="font-semibold text-brick">Nothing was pasted.</p>
      <ul className="max-h-40 overflow-auto">
        {faults.map((fault) => (
          <li key={fault.path}>
            <span className="font-semibold">{reference.tableWords(fault.path, table)}</span>: {fault.value}; expected {fault.expected}.
          </li>
        ))}
      </ul>
      <Button className="mt-1" onClick={onDismiss}>
        Close
      </Button>
    </section>
  );
}

export function ExportLink({ target }: { target: Target }) {
  const { session } = useBench();
  const save = useSnapshot("save");
  const units = useUnits();
  const ready = save === "saved";
  return (
    <a
      href={ready ? `/api/designs/${session.id}/tables/${target}?${units.query}` : undefined}
      aria-disabled={!ready}
      title={ready ? "This table as CSV, in the units shown" : "waits until the last edit is saved"}
      className={`inline-flex items-center gap-1.5 rounded border border-rule px-2 py-0.5 text-[12px] leading-5 hover:border-petrol ${ready ? "" : "opacity-50"}`}
    >
      <Download size={13} aria-hidden /> CSV
    </a>
  );
}
