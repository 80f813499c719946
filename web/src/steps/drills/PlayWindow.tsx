// The panel while a drill is played: the whole window, clock on top, stack, gauges and controls, and the record of what was done.
import { Flag, Pause, Play, X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useRef } from "react";
import { tinykeys } from "tinykeys";
import type { DrillAction } from "../../design/types";
import { Button } from "../../ui/Button";
import { useUnits } from "../../ui/units";
import { PanelControls } from "./PanelControls";
import { PanelGauges } from "./PanelGauges";
import { ACTION_KEYS, KEY_WORDS, typing } from "./panelKeys";
import { StackPicture } from "./StackPicture";
import { Trends, useReadings } from "./Trends";
import type { Speed } from "./drillSession";
import { SPEEDS } from "./drillSession";
import type { Playing } from "./useDrill";
import { clockOf, useDrill } from "./useDrill";

interface Props {
  drill: number;
  onLeave: () => void;
  onEnded: () => void;
}

export function PlayWindow({ drill, onLeave, onEnded }: Props) {
  const playing = useDrill(drill);
  const { view, lost, session } = playing;
  const finish = () => {
    void session.end().then((found) => {
      if (found !== null) onEnded();
    });
  };
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-20 flex flex-col overflow-auto bg-paper text-ink outline-none"
          data-testid="panel"
          onEscapeKeyDown={(event) => event.preventDefault()}
          onInteractOutside={(event) => event.preventDefault()}
        >
          <Top playing={playing} onFinish={finish} onLeave={onLeave} />
          {lost !== "" && (
            <p role="alert" className="bg-brick px-3 py-0.5 text-[13px] text-white">
              {lost}
            </p>
          )}
          {view === null ? <p className="p-6 text-mute">The well is being made up…</p> : <Played playing={playing} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Top({ playing, onFinish, onLeave }: { playing: Playing; onFinish: () => void; onLeave: () => void }) {
  const { view, running, speed, session } = playing;
  const units = useUnits();
  const panel = view?.state.panel;
  return (
    <header className="flex shrink-0 items-center gap-3 bg-bar px-3 py-1.5 text-bar-ink">
      <Dialog.Title className="text-[14px] font-semibold">{panel?.title ?? "Drill"}</Dialog.Title>
      {panel !== undefined && (
        <span className="text-[13px] opacity-85">
          {units.words(panel.hole)} at {units.text(panel.hole_md_ft, "depth")} · {panel.goal === "shut in" ? "shut in" : panel.goal}
        </span>
      )}
      <span className="ml-auto text-[22px] leading-none tabular-nums" data-testid="clock">
        {clockOf(panel?.clock_s ?? 0)}
      </span>
      <Button kind="bar" aria-pressed={running} onClick={() => session.run(!running)}>
        {running ? <Pause size={13} aria-hidden /> : <Play size={13} aria-hidden />} {running ? "Stop the clock" : "Start the clock"}
        <kbd className="text-[10.5px] opacity-70">Space</kbd>
      </Button>
      <select
        aria-label="Speed"
        className="rounded border border-white/25 bg-bar px-1 py-0.5 text-[12px]"
        value={speed}
        onChange={(event) => {
          session.setSpeed(Number(event.target.value) as Speed);
          event.target.blur(); // the keys are the panel's again
        }}
      >
        {SPEEDS.map((s) => (
          <option key={s} value={s}>
            {s}×
          </option>
        ))}
      </select>
      <Button kind="bar" onClick={onFinish}>
        <Flag size={13} aria-hidden /> End and debrief
      </Button>
      <Button kind="bar" aria-label="Leave the panel; the drill is kept" onClick={onLeave}>
        <X size={13} aria-hidden />
      </Button>
    </header>
  );
}

function Played({ playing }: { playing: Playing }) {
  const { act } = playing.session;
  const state = playing.view!.state;
  const { panel } = state;
  const readings = useReadings(state);
  usePanelKeys(playing);
  const toggle = (index: number, wanted: boolean) => act(wanted ? "open" : "close", { target: index });
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[316px_minmax(0,1fr)_350px] gap-3 p-3 max-[1100px]:grid-cols-1">
      <div>
        <StackPicture
          panel={panel}
          onElement={(light) => toggle(light.index, light.wanted)}
          onChokeLine={() => act(panel.choke_line ? "close choke line" : "open choke line")}
          onOverboard={() => act(panel.overboard ? "close overboard" : "open overboard")}
        />
        <details className="mt-2 text-[12px] text-mute">
          <summary>Keys</summary>
          <dl className="grid grid-cols-[5rem_1fr]">
            {KEY_WORDS.map(([key, words]) => (
              <div key={key} className="contents">
                <dt>{key}</dt>
                <dd>{words}</dd>
              </div>
            ))}
          </dl>
        </details>
      </div>
      <div className="flex min-h-0 min-w-0 flex-col gap-2">
        <PanelGauges panel={panel} />
        <Trends readings={readings} />
        <Told playing={playing} />
      </div>
      <PanelControls state={state} act={act} />
    </div>
  );
}

/** What was done, the last first; what could not be done with the reason. */
function Told({ playing }: { playing: Playing }) {
  const units = useUnits();
  const { panel, behind } = playing.view!.state;
  const rows = [...panel.record].reverse();
  return (
    <section aria-label="Record of the drill" className="min-h-0 flex-1 overflow-auto border-t border-rule pt-1 text-[12.5px]">
      {behind && <p className="text-mute">The drill is played again up to where it was…</p>}
      {panel.floor_flow && <p className="font-semibold text-brick">Mud flows up the open string at the rig floor.</p>}
      {rows.length === 0 && !behind && (
        <p className="text-mute">{panel.clock_s === 0 ? "Start the clock. What is done stands here." : "Nothing done yet."}</p>
      )}
      <ol aria-live="polite">
        {rows.map((row, i) => (
          <li key={rows.length - i} className="flex gap-2">
            <span className="text-mute tabular-nums">{clockOf(row.at_s)}</span>
            <span>{units.words(row.words)}</span>
            {row.refused !== "" && <span className="text-brick">not done: {row.refused}</span>}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** The panel by keyboard; a key is told to the drill as it stands now. */
function usePanelKeys(playing: Playing): void {
  const held = useRef(playing);
  useEffect(() => {
    held.current = playing;
  });
  useEffect(() => {
    const does = (run: (now: Playing) => void) => (event: KeyboardEvent) => {
      if (typing(event.target) || held.current.view === null) return;
      event.preventDefault();
      run(held.current);
    };
    const panelOf = (now: Playing) => now.view!.state.panel;
    const pump = (rate: (now: Playing) => number) => does((now) => now.session.act("pump", { value: rate(now) }));
    const choke = (step: number) =>
      does((now) => now.session.act("choke", { value: Math.min(1, Math.max(0, Math.round((panelOf(now).choke + step) * 1000) / 1000)) }));
    const speed = (by: number) =>
      does((now) => now.session.setSpeed(SPEEDS[Math.min(Math.max(SPEEDS.indexOf(now.speed) + by, 0), SPEEDS.length - 1)]!));
    const keys: Record<string, (event: KeyboardEvent) => void> = {
      Space: does((now) => now.session.run(!now.running)),
      ",": speed(-1),
      ".": speed(1),
      c: does((now) => now.session.act(panelOf(now).choke_line ? "close choke line" : "open choke line")),
      d: does((now) => now.session.act(panelOf(now).overboard ? "close overboard" : "open overboard")),
      o: pump(() => 0),
      s: pump((now) => panelOf(now).slow_spm),
      p: pump((now) => Math.floor(panelOf(now).most_spm)),
      "-": pump((now) => Math.max(0, Math.round(panelOf(now).spm) - 1)),
      "+": pump((now) => Math.min(panelOf(now).most_spm, Math.round(panelOf(now).spm) + 1)),
      "Shift++": pump((now) => Math.min(panelOf(now).most_spm, Math.round(panelOf(now).spm) + 1)),
      "0": does((now) => now.session.act("choke", { value: 0 })),
      "[": choke(-0.01),
      "]": choke(0.01),
      "Shift+{": choke(-0.05),
      "Shift+}": choke(0.05),
      a: does((now) => now.session.act("hold casing pressure")),
      w: does((now) => now.session.act("hold drill pipe pressure")),
      r: does(() => document.querySelector<HTMLInputElement>('[data-place="drill/sidpp"]')?.focus()),
    };
    for (const [action, key] of Object.entries(ACTION_KEYS)) {
      keys[key] = does((now) => {
        if (now.view!.state.can.includes(action)) now.session.act(action as DrillAction);
      });
    }
    for (let n = 1; n <= 9; n += 1) {
      keys[String(n)] = does((now) => {
        const light = panelOf(now).elements[n - 1];
        if (light !== undefined) now.session.act(light.wanted ? "open" : "close", { target: light.index });
      });
    }
    return tinykeys(window, keys);
  }, []);
}
