// The connections that a pipe is chosen from, each with what it is and where its figures come from.
import { useQuery } from "@tanstack/react-query";
import { getCatalogue } from "../../design/api";
import { useBench, useSnapshot } from "../../design/context";
import { Check } from "../../ui/Field";

export function Connections() {
  const { session } = useBench();
  const held = useSnapshot("document").policy.pipe.connections;
  const { data: catalogue } = useQuery({ queryKey: ["catalogue"], queryFn: getCatalogue, staleTime: Infinity });
  return (
    <section className="mb-2.5 break-inside-avoid" aria-label="Connections">
      <h4 className="mb-0.5 text-[12px] text-mute">Connections to choose from</h4>
      {(catalogue?.connections ?? []).map((c) => (
        <div
          key={c.connection}
          className="grid grid-cols-[4.5rem_1fr_1.5rem] min-h-6.5 items-center border-b border-rule/60"
          title={c.source}
        >
          <span>{c.connection}</span>
          <span className="text-mute">{c.title}</span>
          <Check
            label={`Choose from ${c.connection}`}
            place="/policy/pipe/connections"
            checked={held.includes(c.connection)}
            onCommit={(on) => {
              const rest = held.filter((name) => name !== c.connection);
              const next = on ? [...rest, c.connection] : rest;
              if (next.length > 0) session.edit([{ path: "/policy/pipe/connections", value: next }]);
            }}
          />
        </div>
      ))}
    </section>
  );
}
