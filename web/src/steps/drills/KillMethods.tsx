// Driller's method beside wait and weight, stage by stage: what is held, and for how many strokes.
import type { KillSheet, KillStage } from "../../design/types";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";

export function KillMethods({ sheet }: { sheet: KillSheet }) {
  const units = useUnits();
  if (sheet.methods.length === 0) return null;
  return (
    <Titled title="Methods" note="the choke margin comes on top of what is held">
      <Facts
        label="Methods"
        heads={[
          { title: "Method" },
          { title: "Stage", left: true },
          { title: "Mud", unit: units.unit("emw") },
          { title: "Hold", left: true },
          { title: "At", unit: units.unit("pressure") },
          { title: "Strokes" },
          { title: "Minutes" },
        ]}
        rows={sheet.methods.flatMap((method) => [
          ...method.stages.map((stage, i) => [
            <Named key="title" title={method.title} first={i === 0} />,
            stage.title,
            units.number(stage.mud_ppg, "emw"),
            `${stage.held} pressure`,
            <Held key="held" stage={stage} />,
            <Headline key="strokes" working={stage.strokes_working} title={`${stage.title}, strokes and time`}>
              {units.number(stage.strokes, "count")}
            </Headline>,
            units.number(stage.minutes, "minutes"),
          ]),
          [
            <Named key="title" title={method.title} first={false} />,
            "Whole",
            "",
            "",
            "",
            units.number(method.strokes, "count"),
            <Headline key="minutes" working={method.working} title={`${method.title}, time`}>
              {units.number(method.minutes, "minutes")}
            </Headline>,
          ],
        ])}
      />
    </Titled>
  );
}

/** The method, seen once and read in every row. */
function Named({ title, first }: { title: string; first: boolean }) {
  return first ? <strong>{title}</strong> : <span className="sr-only">{title}</span>;
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
      {shown(stage.from_psi, stage.from_working)}
      {stage.to_psi !== stage.from_psi && <> to {shown(stage.to_psi, stage.to_working)}</>}
    </>
  );
}
