// Scores by person: every rehearsal of this design, its debrief, its scene to share.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Download, Trash2 } from "lucide-react";
import { deleteDrill, listDrills } from "../../design/api";
import { useBench } from "../../design/context";
import { Button } from "../../ui/Button";
import { Facts } from "../../ui/Facts";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { clockOf } from "./useDrill";

export const drillsKey = (design: number) => ["drills", design];

export function Scores({ onPlay, onShow }: { onPlay: (drill: number) => void; onShow: (drill: number) => void }) {
  const { session } = useBench();
  const units = useUnits();
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: drillsKey(session.id), queryFn: () => listDrills(session.id), staleTime: 0 });
  if (data === undefined) return null;
  if (data.length === 0) return <Empty>No rehearsal yet. Start one under Rehearse; scores are kept here by person.</Empty>;
  return (
    <>
      <p className="mb-1.5 flex gap-2 text-[12px]">
        <a className="inline-flex items-center gap-1 text-petrol underline" href={`/api/designs/${session.id}/drills.csv`}>
          <Download size={12} aria-hidden /> Scores as CSV
        </a>
      </p>
      <Facts
        label="Scores"
        heads={[
          { title: "Person" },
          { title: "Scene", left: true },
          { title: "Depth", unit: units.unit("depth") },
          { title: "Begun", left: true },
          { title: "Took" },
          { title: "Score", unit: "%" },
          { title: "", left: true },
        ]}
        rows={data.map((drill) => [
          drill.person,
          `${drill.title}${drill.scene.goal === "shut in" ? "" : `, ${drill.scene.goal}`}, ${drill.scene.difficulty}, seed ${drill.scene.seed}`,
          units.number(drill.scene.md_ft, "depth"),
          drill.begun_at.slice(0, 16).replace("T", " "),
          clockOf(drill.clock_s),
          drill.score === null ? "not ended" : Math.round(drill.score),
          <span key="a" className="flex gap-1.5">
            {drill.ended ? (
              <Button onClick={() => onShow(drill.id)}>Debrief</Button>
            ) : (
              <Button onClick={() => onPlay(drill.id)}>Go on</Button>
            )}
            <a
              className="inline-flex items-center rounded border border-rule px-2 text-[12px] leading-5 hover:border-petrol"
              href={`/api/drills/${drill.id}/scene.json`}
            >
              Scene
            </a>
            <Button
              aria-label={`Delete the rehearsal of ${drill.person}`}
              onClick={() => {
                void deleteDrill(drill.id).then(() => client.invalidateQueries({ queryKey: drillsKey(session.id) }));
              }}
            >
              <Trash2 size={12} aria-hidden />
            </Button>
          </span>,
        ])}
      />
    </>
  );
}
