// Driller's method beside wait and weight, stage by stage: what is held, and for how many strokes.
import type { KillSheet, KillStage } from "../../design/types";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

export function KillMethods({ sheet }: { sheet: KillSheet }) {
  const units = useUnits();
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3 max-[1180px]:grid-cols-1">
      {sheet.methods.map((method) => (
        <Titled key={method.title} title={method.title} note={`${units.number(method.minutes, "minutes")} min at the slow rate`}>
          <Facts
            label={method.title}
            heads={[
              { title: "Stage" },
              { title: "Mud", unit: units.unit("emw") },
              { title: "Hold", unit: units.unit("pressure") },
              { title: "Strokes" },
            ]}
            rows={[
              ...method.stages.map((stage) => [
                stage.title,
                units.number(stage.mud_ppg, "emw"),
                <Held key="held" stage={stage} />,
                <Strokes key="strokes" stage={stage} />,
              ]),
              [
                <strong key="whole">Whole</strong>,
                "",
                "",
                <Headline key="strokes" working={method.working} title={`${method.title}, time`}>
                  {units.number(method.strokes, "count")}
                </Headline>,
              ],
            ]}
          />
        </Titled>
      ))}
    </div>
  );
}

function Held({ stage }: { stage: KillStage }) {
  const units = useUnits();
  const shown = (psi: number | null, working: string) =>
    psi === null ? (
      "unknown"
    ) : (
      <Headline working={working} title={`${stage.title}, ${stage.held} pressure`}>
        {units.number(psi, "pressure")}
      </Headline>
    );
  return (
    <>
      {stage.held} {shown(stage.from_psi, stage.from_working)}
      {stage.to_psi !== stage.from_psi && <> to {shown(stage.to_psi, stage.to_working)}</>}
    </>
  );
}

function Strokes({ stage }: { stage: KillStage }) {
  const units = useUnits();
  return (
    <Headline working={stage.strokes_working} title={`${stage.title}, strokes`}>
      {units.number(stage.strokes, "count")}
    </Headline>
  );
}
