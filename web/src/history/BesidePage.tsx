// Two designs of a well side by side: what was decided otherwise, what follows otherwise section by section, and the
// findings that each has alone.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import * as api from "../design/api";
import type { Comparison, Finding, Words } from "../design/types";
import { SEVERITY } from "../ui/mark";
import { useUnits } from "../ui/units";
import { SavePicture } from "../ui/SavePicture";
import { useRoom } from "../ui/room";
import { PageBar } from "./PageBar";
import { StaticSection } from "./StaticSection";

export function BesidePage() {
  const { designId, otherId } = useParams();
  const room = useRoom();
  const { data, error } = useQuery({
    queryKey: ["beside", designId, otherId],
    queryFn: () => api.compareDesigns(Number(designId), Number(otherId)),
    gcTime: 0,
  });
  return (
    <div className="flex h-full flex-col" data-room={room}>
      <PageBar back={`/designs/${designId}/depths`} title={data?.a.well_name ?? ""}>
        {data && `${data.a.name} beside ${data.b.name}`}
      </PageBar>
      {error && <p className="p-4 text-brick">The designs cannot be laid side by side: {error.message}</p>}
      {data && <Beside pair={data} />}
    </div>
  );
}

function Beside({ pair }: { pair: Comparison }) {
  const deepest = Math.max(pair.evaluation_a.basis.total_md_ft, pair.evaluation_b.basis.total_md_ft);
  return (
    <main className="flex min-h-0 flex-1 stacked:flex-wrap stacked:overflow-y-auto">
      <Column name={pair.a.name} evaluation={pair.evaluation_a} totalFt={deepest} />
      <div
        className="min-w-0 flex-1 overflow-y-auto px-4 py-3 stacked:order-last stacked:flex-none stacked:basis-full"
        tabIndex={0}
        role="region"
        aria-label="Differences"
      >
        <Decisions pair={pair} />
        <Findings pair={pair} />
        <Results pair={pair} />
        <Materials pair={pair} />
      </div>
      <Column name={pair.b.name} evaluation={pair.evaluation_b} totalFt={deepest} />
    </main>
  );
}

function Column({ name, evaluation, totalFt }: { name: string; evaluation: Comparison["evaluation_a"]; totalFt: number }) {
  return (
    <div data-picture className="flex w-[304px] shrink-0 flex-col border-x border-rule stacked:h-[30rem]">
      <h2 className="truncate px-3 pt-2 text-[14px] font-semibold" title={name}>
        {name} <SavePicture title={`Section, ${name}`} />
      </h2>
      <div className="flex min-h-0 flex-1">
        <StaticSection evaluation={evaluation} label={`Section of the well, ${name}`} totalFt={totalFt} />
      </div>
    </div>
  );
}

function Heads({ pair, first }: { pair: Comparison; first: string }) {
  return (
    <thead>
      <tr className="text-left text-[12px] text-mute">
        <th className="w-[36%] border-b border-rule font-normal">{first}</th>
        {[pair.a, pair.b].map((design) => (
          <th key={design.id} className="max-w-40 truncate border-b border-rule px-2 text-right font-normal" title={design.name}>
            {design.name}
          </th>
        ))}
      </tr>
    </thead>
  );
}

function Decisions({ pair }: { pair: Comparison }) {
  const units = useUnits();
  return (
    <section aria-label="Decisions">
      <h2 className="text-[14px] font-semibold">Decided otherwise</h2>
      {pair.decisions.length === 0 ? (
        <p className="text-mute">Nothing: the two documents are the same.</p>
      ) : (
        <table className="mt-1 w-full table-fixed border-collapse text-[12.5px]" aria-label="Decisions that differ">
          <Heads pair={pair} first="Decision" />
          <tbody>
            {pair.decisions.map((d) => (
              <tr key={d.place + d.subject} className="border-b border-rule/60">
                <th scope="row" className="py-0.5 text-left font-normal">
                  {d.subject}
                </th>
                <td className="px-2 text-right">{units.words(d.before)}</td>
                <td className="px-2 text-right">{units.words(d.after)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Findings({ pair }: { pair: Comparison }) {
  const sides: readonly (readonly [string, readonly Finding[]])[] = [
    [pair.a.name, pair.side_by_side.findings_a],
    [pair.b.name, pair.side_by_side.findings_b],
  ];
  return (
    <section aria-label="Findings of one alone" className="mt-4">
      <h2 className="text-[14px] font-semibold">Findings that one has alone</h2>
      <div className="grid grid-cols-2 gap-4">
        {sides.map(([name, findings], i) => (
          <div key={i} data-side={i}>
            <h3 className="truncate text-[12px] text-mute" title={name}>
              {name}
            </h3>
            {findings.length === 0 && <p className="text-mute">none</p>}
            <ul className="space-y-1.5">
              {findings.map((finding, k) => (
                <FindingLine key={k} finding={finding} />
              ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  );
}

function FindingLine({ finding }: { finding: Finding }) {
  const units = useUnits();
  const { word, border, text, Icon } = SEVERITY[finding.severity];
  return (
    <li className={`${border} pl-2 text-[12.5px]`}>
      <span className={`flex items-center gap-1 text-[11.5px] ${text}`}>
        <Icon size={12} aria-hidden /> {word} · {units.words(finding.subject)}
      </span>
      {units.words(finding.message)}
    </li>
  );
}

/** What is ordered more, less, or instead; with spares. */
function Materials({ pair }: { pair: Comparison }) {
  const count = (value: number | null | undefined) =>
    value == null ? "–" : value.toLocaleString("en-US", { maximumFractionDigits: value < 10 ? 1 : 0 });
  const units = useUnits();
  return (
    <section aria-label="Materials" className="mt-4">
      <h2 className="text-[14px] font-semibold">Materials that differ, with spares</h2>
      {pair.materials.length === 0 ? (
        <p className="text-mute">Nothing: the same is ordered for both.</p>
      ) : (
        <table className="mt-1 w-full table-fixed border-collapse text-[12.5px]" aria-label="Materials that differ">
          <Heads pair={pair} first="Item" />
          <tbody>
            {pair.materials.map((row) => (
              <tr key={row.key} className="border-b border-rule/60">
                <th scope="row" className="py-0.5 text-left font-normal">
                  {units.words(row.what)}
                </th>
                {[row.before, row.after].map((value, i) => (
                  <td key={i} className="px-2 text-right">
                    {count(value)}
                    {value == null ? "" : ` ${row.unit === "each" ? "" : row.unit}`}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Results({ pair }: { pair: Comparison }) {
  const units = useUnits();
  const [all, setAll] = useState(false);
  const rows = pair.side_by_side.results.filter((row) => all || row.differs);
  const sections = [...new Set(rows.map((row) => row.section))];
  const cell = (words: Words, differs: boolean) => (
    <td className={`px-2 text-right align-top ${differs ? "font-semibold" : "text-mute"}`}>{units.words(words)}</td>
  );
  return (
    <section aria-label="Results" className="mt-4">
      <h2 className="flex items-baseline gap-3 text-[14px] font-semibold">
        What follows, section by section
        <label className="text-[12px] font-normal text-mute">
          <input
            type="checkbox"
            className="mr-1 size-3 accent-petrol"
            checked={all}
            onChange={(event) => {
              setAll(event.target.checked);
            }}
          />
          what is the same too
        </label>
      </h2>
      {rows.length === 0 && <p className="text-mute">Nothing differs.</p>}
      {rows.length > 0 && (
        <table className="mt-1 w-full table-fixed border-collapse text-[12.5px]" aria-label="Results of both">
          <Heads pair={pair} first="Result" />
          {sections.map((section) => (
            <tbody key={section}>
              <tr>
                <th colSpan={3} scope="rowgroup" className="pt-2 text-left font-semibold">
                  {section.charAt(0).toUpperCase() + section.slice(1)}
                </th>
              </tr>
              {rows
                .filter((row) => row.section === section)
                .map((row) => (
                  <tr key={row.label} className="border-b border-rule/60">
                    <th scope="row" className="py-0.5 text-left font-normal">
                      {row.label}
                    </th>
                    {cell(row.a, row.differs)}
                    {cell(row.b, row.differs)}
                  </tr>
                ))}
            </tbody>
          ))}
        </table>
      )}
    </section>
  );
}
