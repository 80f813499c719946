// What is rehearsed: in which hole, at which depth, which scene, and what the crew is to do. A scene starts at one press.
import { FileUp, Play } from "lucide-react";
import { useRef, useState } from "react";
import { beginDrill, beginFromFile, saidOf } from "../../design/api";
import { useBench, useEvaluated, useWorkable } from "../../design/context";
import type { DrillView, HoleDrill, Scene, SceneKind } from "../../design/types";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Choice, NumberField } from "../../ui/Field";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";

const CIRCULATED: readonly SceneKind[] = ["drilling", "failed annular", "leaking ram"];
const DIFFICULTIES = ["basic", "standard", "demanding"] as const;
const GOALS = [
  { value: "shut in", text: "Shut in" },
  { value: "driller's method", text: "Shut in, driller's method" },
  { value: "wait and weight", text: "Shut in, wait and weight" },
] as const;
const MOST_SEED = 1_000_000;

type Goal = Scene["goal"];

export function Rehearse({ onPlay }: { onPlay: (drill: number) => void }) {
  const { session } = useBench();
  const units = useUnits();
  const document = useWorkable();
  const holes = useEvaluated((e) => e.drills.holes) ?? [];
  const [picked, setPicked] = useState<string | null>(null);
  const [depth, setDepth] = useState<number | null>(null);
  const [difficulty, setDifficulty] = useState<Scene["difficulty"]>("standard");
  const [goal, setGoal] = useState<Goal>("shut in");
  const [seed, setSeed] = useState(() => 1 + Math.floor(Math.random() * 999));
  const [said, setSaid] = useState("");
  const [starting, setStarting] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const hole = holes.find((h) => h.id === picked) ?? holes[holes.length - 1];
  if (hole === undefined || document === null) {
    return <Empty>No hole of this well is drilled under preventers or a diverter yet: decide its strings and stacks first.</Empty>;
  }
  const inside = depth !== null && depth > hole.top_md_ft && depth <= hole.bottom_md_ft;
  const take = (asked: Promise<DrillView>) => {
    setStarting(true);
    asked.then(
      (view) => {
        setStarting(false);
        setSaid("");
        onPlay(view.id);
      },
      (error: unknown) => {
        setStarting(false);
        setSaid(saidOf(error, () => "Scene"));
      },
    );
  };
  const start = (kind: SceneKind) => {
    const does: Goal = CIRCULATED.includes(kind) ? goal : "shut in";
    const scene = { kind, hole: hole.id, md_ft: inside ? depth : hole.bottom_md_ft, difficulty, seed, goal: does };
    take(beginDrill(session.id, document, scene as Scene));
  };
  const ready = hole.scenes.filter((s) => s.why_not === "");
  const not = hole.scenes.filter((s) => s.why_not !== "");
  return (
    <div className="grid grid-cols-[minmax(0,20rem)_minmax(0,1fr)] gap-x-8 gap-y-3 max-[1180px]:grid-cols-1" data-form="rehearse">
      <div>
        <div className="bordered grid grid-cols-[7rem_1fr_3rem] items-center gap-x-2 text-[13px]">
          <span>Hole</span>
          <Choice
            label="Hole"
            place="drill/hole"
            value={hole.id}
            options={holes.map((h) => ({ value: h.id, text: units.words(h.hole) }))}
            onCommit={(id) => {
              setPicked(id);
              setDepth(null);
            }}
          />
          <span />
          <span>Depth</span>
          <NumberField
            label="Depth"
            place="drill/depth"
            quantity="depth"
            optional
            value={inside ? depth : null}
            proposed={hole.bottom_md_ft}
            onCommit={setDepth}
          />
          <span className="text-mute">{units.unit("depth")}</span>
          <span>To do</span>
          <Choice label="To do" place="drill/goal" value={goal} options={GOALS} onCommit={setGoal} />
          <span />
          <span>Difficulty</span>
          <Choice
            label="Difficulty"
            place="drill/difficulty"
            value={difficulty}
            options={DIFFICULTIES.map((d) => ({ value: d, text: d }))}
            onCommit={setDifficulty}
          />
          <span />
          <span>Seed</span>
          <NumberField
            label="Seed"
            place="drill/seed"
            quantity="count"
            value={seed}
            onCommit={(next) => {
              if (next !== null) setSeed(Math.min(MOST_SEED, Math.max(0, Math.round(next))));
            }}
          />
          <span />
        </div>
        {depth !== null && !inside && (
          <p role="alert" className="mt-1 text-[12.5px] text-brick">
            Depth: {units.text(depth, "depth")}; expected from {units.text(hole.top_md_ft, "depth")} to{" "}
            {units.text(hole.bottom_md_ft, "depth")}, the open hole.
          </p>
        )}
        <p className="mt-2 text-[12px] leading-snug text-mute">
          The formation, its flow and what fails are made up by scene and seed; hole, string, mud, stack and rock are this design’s. A
          rehearsal aid, no certificate: local rules and accredited training prevail.
        </p>
        <div className="mt-2 flex gap-2">
          <FilePick
            ref={file}
            label="Scene file"
            accept=".json,application/json"
            onPick={(chosen) => {
              take(beginFromFile(session.id, chosen));
            }}
          />
          <Button disabled={starting} onClick={() => file.current?.click()}>
            <FileUp size={12} aria-hidden /> Scene from a file
          </Button>
        </div>
      </div>
      <div>
        {said !== "" && (
          <p role="alert" className="mb-1 text-[13px] text-brick">
            Not started. {said}
          </p>
        )}
        <ul aria-label="Scenes" className="border-t border-rule">
          {ready.map((scene) => (
            <li key={scene.kind} className="flex items-center gap-2 border-b border-rule/60 py-[3px] text-[13px]" data-scene={scene.kind}>
              <Button
                kind="act"
                disabled={starting || (depth !== null && !inside)}
                aria-label={`Start: ${scene.title}`}
                onClick={() => {
                  start(scene.kind);
                }}
              >
                <Play size={12} aria-hidden /> Start
              </Button>
              <span>{scene.title}</span>
            </li>
          ))}
        </ul>
        {ready.length === 0 && <Empty>No scene can be played in this hole yet.</Empty>}
        {not.length > 0 && (
          <details className="mt-2 text-[12.5px]" open={ready.length === 0}>
            <summary className="text-mute">Not in this hole: {not.length}</summary>
            <ul>
              {[...byReason(not)].map(([why, titles]) => (
                <li key={why} className="py-px text-mute">
                  {titles.join(", ")}: {why}
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
    </div>
  );
}

/** Scenes that cannot be played, together where the reason is one. */
function byReason(rows: HoleDrill["scenes"]): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const row of rows) found.set(row.why_not, [...(found.get(row.why_not) ?? []), row.title]);
  return found;
}
