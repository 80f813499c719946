// The handbook: every formula with its equation, symbols, units, validity and source, to be tried with other numbers.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import * as api from "../design/api";
import { FormulaView } from "./FormulaView";

export function FormulasPage() {
  const { name } = useParams();
  const [search, setSearch] = useState("");
  const { data: formulas, isError } = useQuery({ queryKey: ["formulas"], queryFn: api.listFormulas, staleTime: Infinity });
  const wanted = search.trim().toLowerCase();
  const shown = (formulas ?? []).filter((f) =>
    [f.name, f.title, f.symbolic, f.source, ...f.inputs.map((i) => i.meaning)].some((text) => text.toLowerCase().includes(wanted)),
  );
  const unknown = name !== undefined && formulas !== undefined && !formulas.some((f) => f.name === name);
  const chosen = unknown ? undefined : (formulas?.find((f) => f.name === name) ?? shown[0]);
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
                  className="block rounded px-2 py-[3px] hover:text-petrol aria-[current=page]:bg-petrol/15 aria-[current=page]:font-semibold"
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
          {unknown && (
            <p className="text-mute">
              There is no formula &quot;{name}&quot;.{" "}
              <Link className="text-petrol underline" to="/formulas">
                All formulas
              </Link>
            </p>
          )}
          {chosen && <FormulaView key={chosen.name} formula={chosen} />}
        </main>
      </div>
    </div>
  );
}
