// A drill being played: its clock runs here, and the server brings the well to it. What is done goes with the next question, which is
// asked at once. No React.
import { endDrill, getDrill, playDrill, ProblemError } from "../../design/api";
import type { Debrief, DrillAction, DrillDoing, DrillView } from "../../design/types";

const ASK_MS = 250;
const TRIES = 60;
export const SPEEDS = [1, 2, 5, 10, 30, 60] as const;
export type Speed = (typeof SPEEDS)[number];

export interface DrillNow {
  view: DrillView | null;
  /** Why nothing comes; "" while all is well. */
  lost: string;
  running: boolean;
  speed: Speed;
}

export class DrillSession {
  private held: DrillNow = { view: null, lost: "", running: false, speed: 1 };
  private clock = 0;
  private last = 0;
  private waiting: DrillDoing[] = [];
  private asking = false;
  private over = false;
  private timer: ReturnType<typeof setInterval> | null = null;
  private listeners = new Set<() => void>();

  constructor(readonly drill: number) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): DrillNow => this.held;

  open = (): void => {
    getDrill(this.drill).then(
      (view) => {
        this.clock = Math.max(view.state.clock_s, this.clock);
        this.show({ view });
        if (view.state.behind) void this.ask();
      },
      (error: unknown) => this.show({ lost: error instanceof Error ? error.message : "The drill is not found." }),
    );
  };

  close = (): void => this.run(false);

  run = (running: boolean): void => {
    if (this.timer !== null) clearInterval(this.timer);
    this.timer = null;
    if (running && !this.over) {
      this.last = performance.now();
      this.timer = setInterval(this.tick, ASK_MS);
    }
    this.show({ running: running && !this.over });
  };

  setSpeed = (speed: Speed): void => this.show({ speed });

  act = (action: DrillAction, more: Partial<DrillDoing> = {}): void => {
    this.waiting.push({ at_s: Math.floor(this.clock), action, ...more } as DrillDoing);
    void this.ask();
  };

  /** Ends the drill; null where the server does not answer. One that is still being played again is asked for until it is there. */
  end = async (): Promise<Debrief | null> => {
    this.run(false);
    this.over = true;
    for (let tries = 0; tries < TRIES; tries += 1) {
      try {
        return await endDrill(this.drill, Math.floor(this.clock));
      } catch (error) {
        if (error instanceof ProblemError && error.problem.status === 409) continue;
        this.over = false;
        this.show({ lost: error instanceof Error ? error.message : "The server is not reached." });
        return null;
      }
    }
    return null;
  };

  private tick = (): void => {
    const now = performance.now();
    this.clock += ((now - this.last) / 1000) * this.held.speed;
    this.last = now;
    void this.ask();
  };

  private async ask(): Promise<void> {
    if (this.asking || this.over) return;
    this.asking = true;
    const doings = this.waiting;
    this.waiting = [];
    let again = false;
    try {
      const view = await playDrill(this.drill, Math.floor(this.clock), doings);
      this.clock = Math.max(this.clock, view.state.clock_s);
      again = view.state.behind || this.waiting.length > 0;
      this.show({ view, lost: "" });
    } catch (error) {
      const refused = error instanceof ProblemError;
      if (!refused) this.waiting = [...doings, ...this.waiting];
      this.run(false);
      this.show({ lost: refused ? error.message : "The server is not reached: the clock stands still." });
    } finally {
      this.asking = false;
    }
    if (again) await this.ask();
  }

  private show(part: Partial<DrillNow>): void {
    this.held = { ...this.held, ...part };
    this.listeners.forEach((listener) => {
      listener();
    });
  }
}
