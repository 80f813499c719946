// The tally on paper: as CSV for the pipe rack, and as pages for the rig floor.
import { Download, Printer } from "lucide-react";
import { useBench, useSnapshot } from "../../design/context";
import { useUnits } from "../../ui/units";

export function RackLinks() {
  const { session, selected } = useBench();
  const ready = useSnapshot("save") === "saved";
  const units = useUnits();
  const at = `/api/designs/${session.id}/strings/${selected}`;
  const links = [
    { href: `${at}/tally.csv?${units.query}`, text: "Tally for the rack, CSV", Icon: Download },
    { href: `${at}/floor.pdf?${units.query}`, text: "Pages for the rig floor, PDF", Icon: Printer },
  ];
  return (
    <p className="my-1.5 flex flex-wrap gap-1.5">
      {links.map(({ href, text, Icon }) => (
        <a
          key={text}
          href={ready ? href : undefined}
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
