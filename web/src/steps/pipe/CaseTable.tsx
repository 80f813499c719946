// Every load case of a string with its factors, in the order of its life; a case is taken in hand to be drawn apart.
import type { LoadsResult } from "../../design/types";

const COLUMNS = [
  { kind: "burst", label: "burst" },
  { kind: "collapse", label: "coll." },
  { kind: "tension", label: "tens." },
  { kind: "triaxial", label: "triax." },
] as const;

interface Props {
  loads: LoadsResult;
  /** Factor asked of each kind; collapse is told as a share, since its factor changes along the string. */
  chosen: string | null;
  onChoose: (name: string | null) => void;
  title: string;
}

export function CaseTable({ loads, chosen, onChoose, title }: Props) {
  const least = new Map(
    COLUMNS.map(({ kind }) => [kind, Math.min(...loads.cases.map((c) => c.factors.find((f) => f.kind === kind)?.share ?? Infinity))]),
  );
  return (
    <table className="w-full text-[12px]" aria-label={title}>
      <thead>
        <tr className="text-mute">
          <th scope="col" className="text-left font-normal">
            factor ÷ asked
          </th>
          {COLUMNS.map((column) => (
            <th key={column.kind} scope="col" className="w-11 text-right font-normal">
              {column.label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {loads.cases.map((item) => (
          <tr key={item.name} className={item.name === chosen ? "bg-petrol/10" : ""}>
            <th scope="row" className="text-left font-normal">
              <button
                type="button"
                aria-pressed={item.name === chosen}
                className="text-left hover:text-petrol"
                title="Draw this case apart"
                onClick={() => {
                  onChoose(item.name === chosen ? null : item.name);
                }}
              >
                {item.name}
              </button>
            </th>
            {COLUMNS.map(({ kind }) => {
              const share = item.factors.find((f) => f.kind === kind)?.share;
              const rules = share !== undefined && share === least.get(kind);
              return (
                <td
                  key={kind}
                  className={`text-right ${share !== undefined && share < 1 - 1e-9 ? "font-semibold text-brick" : rules ? "font-semibold" : ""}`}
                >
                  {share === undefined ? <span className="text-mute">–</span> : share > 9.99 ? ">10" : share.toFixed(2)}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
