// One formula of the handbook: set as mathematics, its symbols and units, tried with other numbers in any unit.
import { useState } from "react";
import * as api from "../design/api";
import type { DisplayUnit, FormulaItem, Output, Quantity } from "../design/types";
import { Button } from "../ui/Button";
import { Equation } from "../ui/Equation";
import { MathText } from "../ui/MathText";
import { parseInches } from "../ui/numbers";
import { useUnits } from "../ui/units";

type Input = FormulaItem["inputs"][number];

export function FormulaView({ formula }: { formula: FormulaItem }) {
  const units = useUnits();
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [chosen, setChosen] = useState<Record<string, string>>({});
  const [outputs, setOutputs] = useState<Output[] | null>(null);
  const [wrong, setWrong] = useState<Record<string, string>>({});

  /** The unit of an input or result: the one chosen here, else the person's own; null where there is no choice. */
  const unitOf = (name: string, quantity: Quantity | null): DisplayUnit | null => {
    if (quantity === null) return null;
    return units.table[quantity]!.options.find((o) => o.unit === chosen[name]) ?? units.of(quantity);
  };

  const work = async () => {
    const { inputs, faults } = readInputs(formula, texts, (input) => unitOf(input.name, input.quantity));
    if (Object.keys(faults).length === 0) {
      try {
        const trial = await api.tryFormula(formula.name, inputs);
        setOutputs(trial.outputs);
        setWrong({});
        return;
      } catch (error) {
        const problem = error instanceof api.ProblemError ? error.problem : null;
        for (const fault of problem?.faults ?? []) faults[fault.path.split("/")[2] ?? ""] = `${fault.value}: expected ${fault.expected}`;
        if (problem === null) faults[""] = "The server is not reached.";
      }
    }
    setOutputs(null);
    setWrong(faults);
  };

  return (
    <article className="max-w-2xl">
      <h2 className="text-[18px] font-semibold">{formula.title}</h2>
      <p className="font-narrow text-[12.5px] text-mute">{formula.name}</p>
      <Equation
        symbolic={formula.symbolic}
        mathml={formula.mathml}
        className="my-3 border-l-[3px] border-petrol bg-sheet px-3 py-2 text-[17px]"
      />
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void work();
        }}
      >
        <InputTable
          formula={formula}
          texts={texts}
          wrong={wrong}
          unitOf={unitOf}
          onText={(name, text) => {
            setTexts({ ...texts, [name]: text });
          }}
          onUnit={(name, unit) => {
            setChosen({ ...chosen, [name]: unit });
            setOutputs(null);
          }}
        />
        {wrong[""] && (
          <p role="alert" className="text-brick">
            {wrong[""]}
          </p>
        )}
        <p className="mt-2 flex items-center gap-3">
          <Button type="submit" className="shrink-0">
            Work it out
          </Button>
          <span className="text-[12px] text-mute">
            Several numbers are separated by semicolons. Placeholders are the usual values. The constants of the equation are for field
            units.
          </span>
        </p>
      </form>
      <output className="mt-3 block min-h-6">
        {outputs?.map((output) => (
          <Result
            key={output.name}
            output={output}
            named={outputs.length > 1}
            unit={unitOf(`= ${output.name}`, output.quantity)}
            onUnit={(unit) => {
              setChosen({ ...chosen, [`= ${output.name}`]: unit });
            }}
          />
        ))}
      </output>
      <h3 className="mt-4 font-semibold">Validity</h3>
      {formula.limits.length === 0 ? (
        <p className="text-mute">Finite numbers.</p>
      ) : (
        <ul className="font-narrow text-[14px]">
          {formula.limits.map((limit) => (
            <li key={limit}>
              <MathText text={limitWords(limit, formula)} />
            </li>
          ))}
        </ul>
      )}
      <h3 className="mt-3 font-semibold">Source</h3>
      <p>{formula.source}</p>
    </article>
  );
}

function readInputs(formula: FormulaItem, texts: Record<string, string>, unitOf: (input: Input) => DisplayUnit | null) {
  const inputs: Record<string, number | number[]> = {};
  const faults: Record<string, string> = {};
  for (const input of formula.inputs) {
    const text = texts[input.name] ?? "";
    if (text.trim() === "") {
      if (input.value === null) faults[input.name] = "a number is needed";
      continue;
    }
    const values = text.split(";").map((part) => parseInches(part));
    const unit = unitOf(input);
    const inCore = (v: number | null) => (unit === null ? v! : Number(((v! - unit.offset) / unit.factor).toPrecision(12)));
    if (values.some((v) => v === null)) faults[input.name] = `"${text}" is not a number`;
    else inputs[input.name] = values.length === 1 ? inCore(values[0]!) : values.map(inCore);
  }
  return { inputs, faults };
}

interface InputTableProps {
  formula: FormulaItem;
  texts: Record<string, string>;
  wrong: Record<string, string>;
  unitOf: (name: string, quantity: Quantity | null) => DisplayUnit | null;
  onText: (name: string, text: string) => void;
  onUnit: (name: string, unit: string) => void;
}

function InputTable({ formula, texts, wrong, unitOf, onText, onUnit }: InputTableProps) {
  return (
    <table className="w-full border-collapse" aria-label="Inputs">
      <thead>
        <tr className="text-left text-[12px] text-mute">
          <th className="border-b border-rule font-normal">Symbol</th>
          <th className="border-b border-rule font-normal">Meaning</th>
          <th className="w-40 border-b border-rule px-1 text-right font-normal">Try</th>
          <th className="w-24 border-b border-rule pl-2 font-normal">Unit</th>
        </tr>
      </thead>
      <tbody>
        {formula.inputs.map((input) => (
          <tr key={input.name} className="border-b border-rule/60 align-top">
            <td className="py-1 font-narrow text-[15px]">
              <MathText text={input.symbol} />
            </td>
            <td className="py-1">{input.meaning}</td>
            <td>
              <input
                className="cell border-rule! text-right"
                aria-label={input.meaning}
                aria-invalid={input.name in wrong}
                placeholder={usual(input, unitOf(input.name, input.quantity))}
                value={texts[input.name] ?? ""}
                onChange={(event) => {
                  onText(input.name, event.target.value);
                }}
              />
              {wrong[input.name] && (
                <span role="alert" className="block text-xs text-brick">
                  {wrong[input.name]}
                </span>
              )}
            </td>
            <td className="py-1 pl-2 text-mute">
              <UnitChoice
                label={`Unit of ${input.meaning}`}
                fixed={input.unit}
                quantity={input.quantity}
                unit={unitOf(input.name, input.quantity)}
                onUnit={(unit) => {
                  onUnit(input.name, unit);
                }}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function usual(input: Input, unit: DisplayUnit | null): string | undefined {
  if (typeof input.value !== "number") return undefined;
  return String(unit === null ? input.value : Number((input.value * unit.factor + unit.offset).toPrecision(6)));
}

interface UnitChoiceProps {
  label: string;
  fixed: string;
  quantity: Quantity | null;
  unit: DisplayUnit | null;
  onUnit: (unit: string) => void;
}

function UnitChoice({ label, fixed, quantity, unit, onUnit }: UnitChoiceProps) {
  const units = useUnits();
  const options = quantity === null ? [] : [...new Set(units.table[quantity]!.options.map((o) => o.unit))];
  if (unit === null || options.length < 2) return <>{fixed}</>;
  return (
    <select
      className="rounded border border-rule bg-sheet px-1 text-ink"
      aria-label={label}
      value={unit.unit}
      onChange={(event) => {
        onUnit(event.target.value);
      }}
    >
      {options.map((option) => (
        <option key={option}>{option}</option>
      ))}
    </select>
  );
}

function Result({
  output,
  named,
  unit,
  onUnit,
}: {
  output: Output;
  named: boolean;
  unit: DisplayUnit | null;
  onUnit: (unit: string) => void;
}) {
  const shown = [output.value].flat().map((v) => (unit === null ? v : v * unit.factor + unit.offset));
  const words = output.name.replaceAll("_", " ");
  return (
    <span className="mr-5 text-[15px] font-semibold">
      {named && <span className="font-normal text-mute">{words} </span>}
      {shown.map((v) => Number(v.toPrecision(7)).toLocaleString("en-US", { maximumFractionDigits: 6 })).join("; ")}{" "}
      <span className="text-[13px] font-normal text-mute">
        <UnitChoice label={`Unit of ${words}`} fixed={output.unit} quantity={output.quantity} unit={unit} onUnit={onUnit} />
      </span>
    </span>
  );
}

/** A limit with symbols for names: "wall_in < 0.5 od_in" is "t < 0.5 D". */
function limitWords(limit: string, formula: FormulaItem): string {
  const symbols = new Map(formula.inputs.map((i) => [i.name, i.symbol]));
  return limit
    .split(" ")
    .map((word) => symbols.get(word) ?? { "<=": "≤", ">=": "≥" }[word] ?? word)
    .join(" ");
}
