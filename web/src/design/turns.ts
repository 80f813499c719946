// Questions that follow a drag, one under way at a time: server and page share the machine, and the hand comes first.

let last: Promise<unknown> = Promise.resolve();

/** Ask once the question before has its answer. */
export function inTurn<T>(ask: () => Promise<T>): Promise<T> {
  const turn = last.then(ask, ask);
  last = turn.catch(() => undefined);
  return turn;
}

const REST_FRAMES = 3;

/** Resolves a few frames after an answer: they belong to the hand. */
export async function restAfterAnswer(): Promise<void> {
  for (let i = 0; i < REST_FRAMES; i++) {
    await new Promise(requestAnimationFrame);
  }
}
