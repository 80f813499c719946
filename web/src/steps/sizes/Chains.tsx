// Every chain of sizes that fits, the plainest first; the one in force, its neighbours, and what each step gains and loses.
import { useState } from "react";
import { adoption, useBench, useSnapshot } from "../../design/context";
import type { ChainResult } from "../../design/types";
import { Button } from "../../ui/Button";
import { useUnits } from "../../ui/units";
import { useChains } from "./useChains";

const SHORT: Record<string, string> = {
  common: "",
  tight: "tight",
  "special clearance": "special clearance",
  "under-reamed": "under-reamed",
  flush: "flush",
};
const FIRST = 12;

function asText(chain: ChainResult, text: (inches: number) => string): string {
  return chain.links.map((s) => text(s.od_in)).join(" · ");
}

export function Chains() {
  const { session } = useBench();
  const units = useUnits();
  const { chains, behind } = useChains();
  const strings = useSnapshot("evaluation")!.strings;
  const [all, setAll] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  if (chains === undefined) return <p className="text-mute">Seeking every chain…</p>;
  const shown = chains.chains.filter((c) => all || c.current || c.neighbour).slice(0, all ? 300 : FIRST);
  const current = chains.chains.find((c) => c.current);
  const use = (chain: ChainResult) => {
    const { document, evaluation } = session.snapshot();
    session.edit([
      ...adoption(document, evaluation),
      ...chain.links.flatMap((s, i) => [
        { path: `/strings/${i}/od_in`, value: s.od_in },
        ...(s.hole_in === null ? [] : [{ path: `/strings/${i}/bit_in`, value: s.hole_in }]),
        { path: `/strings/${i}/opened_from_in`, value: s.opened_from_in },
        { path: `/strings/${i}/connection`, value: s.connection },
        ...(strings[i]?.od_in === s.od_in
          ? []
          : [
              { path: `/strings/${i}/pipe`, value: null },
              { path: `/strings/${i}/sections`, value: [] },
            ]),
      ]),
    ]);
  };
  return (
    <section aria-label="Chains" aria-busy={behind}>
      <h3 className="mt-3 mb-1 flex items-center gap-2 text-[13px] font-semibold">
        Chains
        <span className="font-normal text-mute">
          {chains.count} carry {strings.length} strings to the production casing{current ? "" : "; the one in force is none of them"}
        </span>
        <span className="ml-auto font-normal">
          <label className="flex items-center gap-1 text-[12px]">
            <input
              type="checkbox"
              className="accent-petrol"
              checked={all}
              onChange={(event) => {
                setAll(event.target.checked);
              }}
            />
            all, not only neighbours
          </label>
        </span>
      </h3>
      <ul>
        {shown.map((chain) => {
          const text = asText(chain, (v) => units.number(v, "size"));
          const ways = [...new Set(chain.links.map((s) => SHORT[s.way ?? "common"]).filter((w) => w))].join(", ");
          return (
            <li key={text} className={`border-b border-rule/60 py-0.5 ${chain.current ? "bg-petrol/10" : ""}`}>
              <div className="flex items-center gap-2 text-[12.5px]">
                <button
                  type="button"
                  aria-expanded={open === text}
                  className="text-left hover:text-petrol"
                  onClick={() => {
                    setOpen(open === text ? null : text);
                  }}
                >
                  {text} {units.unit("size")}
                </button>
                <span className="text-mute">{ways}</span>
                <span className="ml-auto text-mute">
                  {chain.current ? "in force" : against(chain, current, (v) => units.text(v, "volume"))}
                </span>
                <Button
                  disabled={chain.current}
                  aria-label={`Use ${text}`}
                  onClick={() => {
                    use(chain);
                  }}
                >
                  Use
                </Button>
              </div>
              {open === text && <Steps chain={chain} />}
            </li>
          );
        })}
      </ul>
      {shown.length === 0 && <p className="text-mute">No neighbour fits: a change of one size breaks the chain.</p>}
    </section>
  );
}

/** Hole volume against the chain in force. */
function against(chain: ChainResult, current: ChainResult | undefined, text: (bbl: number) => string): string {
  if (!current) return "";
  const sum = (c: ChainResult) => c.links.reduce((total, s) => total + (s.hole_bbl ?? 0), 0);
  const change = sum(chain) - sum(current);
  if (Math.abs(change) < 0.05) return "same hole";
  return `hole ${change < 0 ? "−" : "+"}${text(Math.abs(change))}`;
}

function Steps({ chain }: { chain: ChainResult }) {
  const units = useUnits();
  const head = [
    "Casing",
    "Hole",
    "Way",
    `Clearance, ${units.unit("diameter")}`,
    `Gap, ${units.unit("diameter")}`,
    `Hole, ${units.unit("volume")}`,
    `Annulus, ${units.unit("volume")}`,
    `Closed-end, ${units.unit("volume")}`,
    "Spare above",
  ];
  return (
    <table className="my-1 w-full text-[12px]" aria-label="Steps of the chain">
      <thead>
        <tr className="text-mute">
          {head.map((h, i) => (
            <th key={h} scope="col" className={`font-normal ${i < 3 ? "text-left" : "text-right"}`}>
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {chain.links.map((s) => (
          <tr key={s.od_in}>
            <td>{units.text(s.od_in, "size")}</td>
            <td>
              {s.hole_in === null
                ? "–"
                : `${units.number(s.hole_in, "size")}${s.opened_from_in === null ? "" : ` from ${units.number(s.opened_from_in, "size")}`}`}
            </td>
            <td>{s.way ?? "driven"}</td>
            <td className="text-right">{s.clearance_in === null ? "–" : units.number(s.clearance_in, "diameter")}</td>
            <td className="text-right">{s.gap_in === null ? "–" : units.number(s.gap_in, "diameter")}</td>
            <td className="text-right">{s.hole_bbl === null ? "–" : units.number(s.hole_bbl, "volume")}</td>
            <td className="text-right">{s.annulus_bbl === null ? "–" : units.number(s.annulus_bbl, "volume")}</td>
            <td className="text-right">{s.displaced_bbl === null ? "–" : units.number(s.displaced_bbl, "volume")}</td>
            <td className="text-right">{s.spare ? units.number(s.spare.od_in, "size") : "none"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
