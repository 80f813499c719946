// What the stages of a cement job are called. No React.
const NAMES = ["first stage", "second stage", "third stage"];

export const stageName = (number: number) => NAMES[number - 1]!;

export function stageTitle(number: number): string {
  const name = stageName(number);
  return name.charAt(0).toUpperCase() + name.slice(1);
}
