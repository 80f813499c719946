// Domains of horizontal scales.
import { scaleLinear } from "d3-scale";

/** A domain from zero to a round number over the values. */
export function fromZero(values: readonly number[], least: number): [number, number] {
  return scaleLinear([0, Math.max(least, ...values)], [0, 1])
    .nice(4)
    .domain() as [number, number];
}
