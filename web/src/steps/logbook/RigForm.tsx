// A simulated rig from the page: how fast, from which depth, with which troubles.
import { Play, Square } from "lucide-react";
import { useState } from "react";
import { saidOf, startRig, stopRig } from "../../design/api";
import { useBench, useEvaluated, useSnapshot } from "../../design/context";
import type { FeedView } from "../../design/types";
import { Button } from "../../ui/Button";
import { Choice, NumberField } from "../../ui/Field";
import { useUnits } from "../../ui/units";

const TROUBLES = ["losses", "kick", "tight-hole", "stuck", "no-bump", "lost-returns"] as const;
const SPEEDS = [1, 10, 60, 300, 1_000, 5_000] as const;
const USUAL_SPEED = "60";

interface Trouble {
  kind: (typeof TROUBLES)[number];
  mdFt: number;
}

export function RigForm({ feed, onSet }: { feed: FeedView; onSet: (feed: FeedView) => void }) {
  const { session } = useBench();
  const units = useUnits();
  const today = useEvaluated((e) => e.logbook.today_md_ft) ?? null;
  const saved = useSnapshot("save") === "saved";
  const [speed, setSpeed] = useState(USUAL_SPEED);
  const [from, setFrom] = useState<number | null>(null);
  const [troubles, setTroubles] = useState<Trouble[]>([]);
  const [said, setSaid] = useState("");
  const take = (asked: Promise<FeedView>) => {
    asked.then(
      (view) => {
        setSaid("");
        onSet(view);
      },
      (error: unknown) => {
        setSaid(saidOf(error, (path) => (path.startsWith("/troubles") ? "Trouble" : "Simulated rig")));
      },
    );
  };
  const start = () => {
    const words = troubles.map((t) => `${t.kind}@${t.mdFt}`);
    take(startRig(session.id, { speed: Number(speed), from_md_ft: from ?? today ?? 0, seed: 1, troubles: words }));
  };
  const change = (at: number, patch: Partial<Trouble>) => {
    setTroubles(troubles.map((t, i) => (i === at ? { ...t, ...patch } : t)));
  };
  return (
    <details className="border-t border-rule pt-1.5" open={!feed.on} data-form="rig">
      <summary className="text-[13px] font-semibold">Simulated rig</summary>
      <p className="text-[12px] text-mute">
        Plays this design’s last revision over the feed’s own protocol, with noise. It is no rig: try here what the watches tell.
      </p>
      <div className="bordered mt-1 grid max-w-md grid-cols-[9.5rem_7rem_3rem] items-center gap-x-2 text-[13px]">
        <span>Speed</span>
        <Choice
          label="Speed"
          place="rig/speed"
          value={speed}
          options={SPEEDS.map((s) => ({ value: String(s), text: `${s} times` }))}
          onCommit={setSpeed}
        />
        <span />
        <span>Begins at</span>
        <NumberField label="Begins at" place="rig/from" quantity="depth" value={from} optional proposed={today ?? 0} onCommit={setFrom} />
        <span className="text-mute">{units.unit("depth")}</span>
        {troubles.map((trouble, i) => (
          <div key={i} className="contents">
            <Choice
              label={`Trouble ${i + 1}`}
              place={`rig/trouble/${i}`}
              value={trouble.kind}
              options={TROUBLES.map((t) => ({ value: t, text: `${t.replace("-", " ")} at` }))}
              onCommit={(kind) => change(i, { kind })}
            />
            <NumberField
              label={`Depth of trouble ${i + 1}`}
              place={`rig/trouble/${i}/md`}
              quantity="depth"
              value={trouble.mdFt}
              onCommit={(mdFt) => change(i, { mdFt: mdFt ?? trouble.mdFt })}
            />
            <span className="text-mute">{units.unit("depth")}</span>
          </div>
        ))}
      </div>
      <p className="mt-1.5 flex flex-wrap items-center gap-1.5">
        <Button onClick={() => setTroubles([...troubles, { kind: "losses", mdFt: Math.round((from ?? today ?? 0) + 100) }])}>
          A trouble
        </Button>
        <Button kind="act" disabled={!saved} title={saved ? undefined : "waits until the last edit is saved"} onClick={start}>
          <Play size={13} aria-hidden /> {feed.simulated && feed.on ? "Start anew" : "Start"}
        </Button>
        {feed.simulated && feed.on && (
          <Button onClick={() => take(stopRig(session.id))}>
            <Square size={12} aria-hidden /> Stop
          </Button>
        )}
      </p>
      {said !== "" && (
        <p role="alert" className="text-[12.5px] text-brick">
          {said}
        </p>
      )}
    </details>
  );
}
