// Questions about the document, one under way at a time: server and page share the machine, and the hand comes first.

const REST_FRAMES = 3;
const FRAMES_FOR_A_LATE_ONE = 8;
const MOST_FRAMES = 30;
const LATE_MS = 25;

let last: Promise<unknown> = Promise.resolve();
let dragging = false;
let late = 0;

const frame = () => new Promise<number>(requestAnimationFrame);

/** While something is dragged, answers leave frames to the hand. */
export function handIsDragging(value: boolean): void {
  const begins = value && !dragging;
  dragging = value;
  if (begins) void countLateFrames();
}

/** Ask once the question before has its answer. */
export function inTurn<T>(ask: () => Promise<T>): Promise<T> {
  const turn = last.then(ask, ask);
  last = turn.then(rest, rest);
  return turn;
}

async function countLateFrames(): Promise<void> {
  late = 0;
  for (let before = await frame(); dragging;) {
    const now = await frame();
    if (now - before > LATE_MS) late += 1;
    before = now;
  }
}

/**
 * A few frames after an answer. Each that came late, since the answer took long to work or to draw, is paid back with
 * several, so that a slow machine shows fewer answers and not a jerking hand.
 */
async function rest(): Promise<void> {
  let owed = REST_FRAMES;
  for (let i = 0; dragging && i < Math.min(owed, MOST_FRAMES); i++) {
    await frame();
    owed += late * FRAMES_FOR_A_LATE_ONE;
    late = 0;
  }
}
