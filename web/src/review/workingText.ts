// A working in the units of the person, on the screen and as plain text to paste elsewhere. No React.
import type { Quantity, WorkingCall } from "../design/types";
import { grouped } from "../ui/numbers";
import type { Units } from "../ui/units";

interface Given {
  unit: string;
  quantity: Quantity | null;
  value: number | number[] | null;
}

function plainNumber(value: number): string {
  if (value === 0) return "0";
  const size = Math.abs(value);
  const digits = size >= 1000 ? 1 : size >= 100 ? 2 : size >= 1 ? 3 : 5;
  return grouped(value, 0, digits);
}

export function numberText(given: Given, units: Units): string {
  if (given.value === null) return "unknown";
  const { factor, offset } = given.quantity === null ? { factor: 1, offset: 0 } : units.of(given.quantity);
  return [given.value]
    .flat()
    .map((v) => plainNumber(v * factor + offset))
    .join("; ");
}

export function unitText(given: Given, units: Units): string {
  return given.quantity === null ? given.unit : units.unit(given.quantity);
}

/** Whether every number of a call stands in the units for which the equation's constants hold. */
export function isFieldUnit(call: WorkingCall, units: Units): boolean {
  const all: readonly Given[] = [...call.inputs, ...call.outputs];
  return (
    all.every((g) => g.quantity === null || units.of(g.quantity).factor === 1) && call.calls.every((inner) => isFieldUnit(inner, units))
  );
}

export function workingText(title: string, calls: readonly WorkingCall[], units: Units): string {
  const lines = [title, ""];
  const write = (call: WorkingCall, indent: string) => {
    for (const inner of call.calls) write(inner, `${indent}  `);
    lines.push(`${indent}${call.title}`, `${indent}  ${call.symbolic}`);
    for (const input of call.inputs) {
      lines.push(`${indent}  ${input.symbol} = ${numberText(input, units)} ${unitText(input, units)}`.trimEnd() + `  (${input.meaning})`);
      if (input.source) write(input.source, `${indent}    `);
    }
    for (const output of call.outputs) {
      const name = call.outputs.length > 1 ? output.name.replaceAll("_", " ") : "result";
      lines.push(`${indent}  ${name} = ${numberText(output, units)} ${unitText(output, units)}`.trimEnd());
    }
    lines.push(`${indent}  ${call.source}`, "");
  };
  calls.forEach((call) => {
    write(call, "");
  });
  return lines.join("\n");
}
