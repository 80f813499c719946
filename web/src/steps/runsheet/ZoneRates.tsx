// Drilling rates of single zones, where they differ from that of their section.
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import { Button } from "../../ui/Button";
import { DocNumber } from "../../ui/DocField";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { removeRate, rateZone } from "./edits";
import { Pick } from "./Sheet";

export function ZoneRates() {
  const units = useUnits();
  const { session } = useBench();
  const strings = useEvaluated((e) => e.strings) ?? [];
  const zones = useDocument((d) => d.ground.zones) ?? [];
  const rates = useDocument((d) => d.runsheet.rates) ?? [];
  const drilled = strings.filter((s) => s.bit_in !== null && s.role !== "conductor");
  const [string, setString] = useState("");
  const [zone, setZone] = useState("");
  const hole = (id: string) => {
    const found = strings.find((s) => s.id === id);
    return found?.bit_in == null ? `section ${id}` : `${units.text(found.bit_in, "size")} hole`;
  };
  const at = { string: string === "" ? (drilled[0]?.id ?? "") : string, zone: zone === "" ? (zones[0]?.id ?? "") : zone };
  const there = rates.some((r) => r.string === at.string && r.zone === at.zone);
  const rows = rates.map((rate, i) => ({ rate, i })).filter(({ rate }) => rate.zone != null);
  return (
    <section aria-label="Rates of zones">
      <Titled title="Zones drilled at a rate of their own">
        {rows.length === 0 && <p className="text-[12.5px] text-mute">None: each section keeps its rate through all zones.</p>}
        {rows.map(({ rate, i }) => (
          <div key={rate.id} className="grid grid-cols-[1fr_5rem_2.5rem_2rem] items-center border-b border-rule/60 text-[12.5px]">
            <span>
              {zones.find((z) => z.id === rate.zone)?.name ?? `zone ${rate.zone}`} in the {hole(rate.string)}
            </span>
            <DocNumber path={`/runsheet/rates/${i}/ft_hour`} label={`Rate, ${zones.find((z) => z.id === rate.zone)?.name ?? rate.zone}`} />
            <span className="pl-1.5 text-mute">{units.unit("drilling_rate")}</span>
            <button
              type="button"
              aria-label={`Remove the rate of ${zones.find((z) => z.id === rate.zone)?.name ?? rate.zone}`}
              className="text-mute hover:text-brick"
              onClick={() => {
                session.edit(removeRate(session.snapshot().document, rate.id));
              }}
            >
              <Trash2 size={13} aria-hidden />
            </button>
          </div>
        ))}
        {zones.length > 0 && drilled.length > 0 && (
          <div className="mt-1 flex flex-wrap items-center gap-1.5 text-[12.5px]">
            <Pick
              label="Section of the rate"
              value={at.string}
              options={drilled.map((s) => [s.id, hole(s.id)] as const)}
              onPick={setString}
            />
            <Pick label="Zone of the rate" value={at.zone} options={zones.map((z) => [z.id, z.name] as const)} onPick={setZone} />
            <Button
              disabled={there}
              onClick={() => {
                session.edit(rateZone(session.snapshot().document, at.string, at.zone));
              }}
            >
              <Plus size={13} aria-hidden /> Rate of the zone
            </Button>
          </div>
        )}
      </Titled>
    </section>
  );
}
