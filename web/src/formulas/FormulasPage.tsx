// The handbook: every formula with its equation, symbols, units, validity and source, to be tried with other numbers.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import * as api from "../design/api";
import type { FormulaItem, Output } from "../design/types";
import { Button } from "../ui/Button";
import { MathText } from "../ui/MathText";
import { parseNumber } from "../ui/units";

export function FormulasPage() {
  const { name } = useParams();
  const [search, setSearch] = useState("");
  const { data: formulas, isError } = useQuery({ queryKey: ["formulas"], queryFn: api.listFormulas, staleTime: Infinity });
  const wanted = search.trim().toLowerCase();
  const shown = (formulas ?? []).filter((f) =>
    [f.name, f.title, f.symbolic, f.source, ...f.inputs.map((i) => i.meaning)].some((text) => text.toLowerCase().includes(wanted)),
  );
  const chosen = formulas?.find((f) => f.name === name) ?? shown[0];
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-10 shrink-0 items-center gap-3 bg-bar px-4 text-bar-ink">
        <Link to="/" className="text-[12.5px] text-bar-ink/75 hover:text-bar-ink">
          Wells
        </Link>
        <h1 className="text-[14px] font-semibold">Formulas</h1>
        <span className="text-[12.5px] text-bar-ink/75">{formulas && `${formulas.length} in the registry`}</span>
      </header>
      <div className="flex min-h-0 flex-1">
        <nav aria-label="Formulas" className="flex w-80 shrink-0 flex-col border-r border-rule bg-sheet">
          <input
            className="m-2 rounded border border-rule bg-transparent px-2 py-1 placeholder:text-mute"
            placeholder="Search by name, quantity or source"
            aria-label="Search the formulas"
            value={search}
            onChange={(event) => {
              setSearch(event.target.value);
            }}
          />
          <ul className="min-h-0 flex-1 overflow-y-auto px-2 pb-3">
            {shown.map((formula) => (
              <li key={formula.name}>
                <Link
                  to={`/formulas/${formula.name}`}
                  aria-current={formula === chosen ? "page" : undefined}
                  className="block rounded px-2 py-0.5 hover:text-petrol aria-[current=page]:bg-petrol/15 aria-[current=page]:font-semibold"
                >
                  {formula.title}
                </Link>
              </li>
            ))}
            {formulas && shown.length === 0 && <li className="px-2 text-mute">No formula of that name.</li>}
          </ul>
        </nav>
        <main className="min-w-0 flex-1 overflow-y-auto px-6 py-4">
          {isError && <p className="text-brick">The server is not reached.</p>}
          {chosen && <FormulaView key={chosen.name} formula={chosen} />}
        </main>
      </div>
    </div>
  );
}

function FormulaView({ formula }: { formula: FormulaItem }) {
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [outputs, setOutputs] = useState<Output[] | null>(null);
  const [wrong, setWrong] = useState<Record<string, string>>({});

  const work = async () => {
    const inputs: Record<string, number | number[]> = {};
    const faults: Record<string, string> = {};
    for (const input of formula.inputs) {
      const text = texts[input.name] ?? "";
      if (text.trim() === "") {
        if (input.value === null) faults[input.name] = "a number is needed";
        continue;
      }
      const values = text.split(";").map((part) => parseNumber(part));
      if (values.some((v) => v === null)) faults[input.name] = `"${text}" is not a number`;
      else inputs[input.name] = values.length === 1 ? values[0]! : (values as number[]);
    }
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
      <p className="my-3 border-l-[3px] border-petrol bg-sheet px-3 py-2 font-narrow text-[17px] break-words"><MathText text={formula.symbolic} /></p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void work();
        }}
      >
        <table className="w-full border-collapse" aria-label="Inputs">
          <thead>
            <tr className="text-left text-[12px] text-mute">
              <th className="border-b border-rule font-normal">Symbol</th>
              <th className="border-b border-rule font-normal">Meaning</th>
              <th className="w-40 border-b border-rule px-1 text-right font-normal">Try</th>
              <th className="w-20 border-b border-rule pl-2 font-normal">Unit</th>
            </tr>
          </thead>
          <tbody>
            {formula.inputs.map((input) => (
              <tr key={input.name} className="border-b border-rule/60 align-top">
                <td className="py-1 font-narrow text-[15px]"><MathText text={input.symbol} /></td>
                <td className="py-1">{input.meaning}</td>
                <td>
                  <input
                    className="cell border-rule! text-right"
                    aria-label={input.meaning}
                    aria-invalid={input.name in wrong}
                    placeholder={input.value === null ? undefined : String(input.value)}
                    value={texts[input.name] ?? ""}
                    onChange={(event) => {
                      setTexts({ ...texts, [input.name]: event.target.value });
                    }}
                  />
                  {wrong[input.name] && (
                    <span role="alert" className="block text-xs text-brick">
                      {wrong[input.name]}
                    </span>
                  )}
                </td>
                <td className="py-1 pl-2 text-mute">{input.unit}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {wrong[""] && (
          <p role="alert" className="text-brick">
            {wrong[""]}
          </p>
        )}
        <p className="mt-2 flex items-center gap-3">
          <Button type="submit">Work it out</Button>
          <span className="text-[12px] text-mute">Several numbers are separated by semicolons. Placeholders are the usual values.</span>
        </p>
      </form>
      <output className="mt-3 block min-h-6">
        {outputs?.map((output) => (
          <span key={output.name} className="mr-5 text-[15px] font-semibold">
            {outputs.length > 1 && <span className="font-normal text-mute">{output.name.replaceAll("_", " ")} </span>}
            {[output.value].flat().map((v) => Number(v.toPrecision(7)).toLocaleString("en-US", { maximumFractionDigits: 6 })).join("; ")}{" "}
            <span className="font-normal text-mute">{output.unit}</span>
          </span>
        ))}
      </output>
      <h3 className="mt-4 font-semibold">Validity</h3>
      {formula.limits.length === 0 ? (
        <p className="text-mute">Finite numbers.</p>
      ) : (
        <ul className="font-narrow text-[14px]">
          {formula.limits.map((limit) => (
            <li key={limit}><MathText text={limitWords(limit, formula)} /></li>
          ))}
        </ul>
      )}
      <h3 className="mt-3 font-semibold">Source</h3>
      <p>{formula.source}</p>
    </article>
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
