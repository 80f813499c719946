// Pipe: weight, grade and connection of each string, its ratings, and the loads that govern.
import { useQuery } from "@tanstack/react-query";
import { memo } from "react";
import { getCatalogue } from "../../design/api";
import { editString, useBench, useSnapshot } from "../../design/context";
import type { LoadResult } from "../../design/types";
import type { DepthScale } from "../../depth/scale";
import { Choice } from "../../ui/Field";
import { Headline } from "../../ui/Headline";
import { Empty, Panel, Scroll } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { LoadTrack } from "./LoadTrack";

export function PipeBench({ scale, tracksPx }: { scale: DepthScale; tracksPx: number }) {
  const each = Math.floor(tracksPx / 2);
  return (
    <>
      <LoadTrack kind="burst" scale={scale} widthPx={each} />
      <LoadTrack kind="collapse" scale={scale} widthPx={each} />
      <Pipes />
    </>
  );
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Pipes = memo(function Pipes() {
  const evaluation = useSnapshot("evaluation");
  return (
    <Panel title="Pipe">
      <Scroll label="Pipe">
        {!evaluation || evaluation.strings.length === 0 ? (
          <Empty>No string yet. Pipe is chosen once there are depths, sizes and muds.</Empty>
        ) : (
          evaluation.strings.map((_, index) => <PipeCard key={index} index={index} />)
        )}
        <p className="mt-2 text-[12px] text-mute">
          Solid: the load. Dashed: rating over the factor asked. The cheapest single weight and grade that stands every load is proposed; relative costs
          are assumed. Burst is judged on the pipe body: coupling yield and leak resistance are not worked.
        </p>
      </Scroll>
    </Panel>
  );
});

function PipeCard({ index }: { index: number }) {
  const evaluation = useSnapshot("evaluation");
  const { selected, select } = useBench();
  const units = useUnits();
  const string = evaluation!.strings[index]!;
  const row = evaluation!.pipe.strings[index]!;
  const size = string.od_in === null ? string.role : units.text(string.od_in, "size");
  const inHand = index === selected;
  return (
    <section
      aria-label={`${size} pipe`}
      className={`mb-2.5 border-l-[3px] pl-2 ${inHand ? "border-petrol" : "border-rule"}`}
      onFocus={() => {
        select(index);
      }}
    >
      <div className="flex items-center gap-2">
        <button
          type="button"
          className="text-[13px] font-semibold hover:text-petrol"
          onClick={() => {
            select(index);
          }}
        >
          {size}
        </button>
        <span className="text-[12px] text-mute">{string.role}</span>
        <span className="ml-auto w-44">
          <PipeChoice index={index} size={size} />
        </span>
      </div>
      {inHand && row.burst_psi !== null && (
        <dl className="my-1 grid grid-cols-[auto_auto_auto_auto] justify-between gap-x-2 text-[12px]">
          <Rating name="burst" text={units.text(row.burst_psi, "pressure")} />
          <Rating name="body" text={units.text(row.body_lbf, "force")} />
          <Rating name="collapse" text={units.text(row.collapse_psi, "pressure")} />
          <Rating name="joint" text={units.text(row.joint_lbf, "force")} />
          <Rating name="ID" text={units.text(row.id_in, "diameter")} />
          <Rating name="drift" text={units.text(row.drift_in, "diameter")} />
        </dl>
      )}
      {string.role === "conductor" ? (
        <p className="text-[12px] text-mute">Conductor: its loads are not judged here.</p>
      ) : (
        <Loads loads={row.loads} index={index} size={size} />
      )}
    </section>
  );
}

function Rating({ name, text }: { name: string; text: string }) {
  return (
    <>
      <dt className="text-mute">{name}</dt>
      <dd className="text-right">{text}</dd>
    </>
  );
}

function Loads({ loads, index, size }: { loads: readonly LoadResult[]; index: number; size: string }) {
  const units = useUnits();
  if (loads.length === 0) return <p className="text-[12px] text-mute">Loads unknown.</p>;
  return (
    <table className="w-full text-[12.5px]" aria-label={`${size} loads`}>
      <tbody>
        {loads.map((load) => {
          const thin = load.factor < load.required - 1e-9;
          return (
            <tr key={load.kind}>
              <th scope="row" className="text-left font-normal text-mute">
                {load.kind}: {load.name}
                {load.kind !== "tension" && ` at ${units.text(load.at_md_ft, "depth")}`}
              </th>
              <td className={`text-right ${thin ? "font-semibold text-brick" : ""}`} data-testid={`factor-${index}-${load.kind}`}>
                <Headline working={`pipe/${index}/${load.kind}`} title={`${load.kind} factor, ${size}`}>
                  {load.factor.toFixed(2)}
                </Headline>
              </td>
              <td className="w-16 text-right text-mute">asks {load.required.toFixed(load.required === 1.125 ? 3 : 2)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function PipeChoice({ index, size }: { index: number; size: string }) {
  const evaluation = useSnapshot("evaluation");
  const document = useSnapshot("document");
  const { session } = useBench();
  const units = useUnits();
  const { data: catalogue } = useQuery({ queryKey: ["catalogue"], queryFn: getCatalogue, staleTime: Infinity });
  const string = evaluation!.strings[index]!;
  const row = evaluation!.pipe.strings[index]!;
  const decided = document.strings[index]?.pipe ?? null;
  const key = (p: { weight_ppf: number; grade: string; connection: string }) => `${p.weight_ppf}|${p.grade}|${p.connection}`;
  const text = (p: { weight_ppf: number; grade: string; connection: string }) =>
    `${units.text(p.weight_ppf, "linear_weight")} ${p.grade} ${p.connection}`;
  const held = decided ?? (row.weight_ppf === null ? null : { weight_ppf: row.weight_ppf, grade: row.grade!, connection: row.connection! });
  const rows = (catalogue?.pipes ?? []).filter((p) => p.od_in === string.od_in);
  const options = [{ value: "", text: "cheapest that stands" }, ...rows.map((p) => ({ value: key(p), text: text(p) }))];
  if (held && !options.some((o) => o.value === key(held))) options.push({ value: key(held), text: text(held) });
  return (
    <Choice
      label={`${size} pipe`}
      place={`/strings/${index}/pipe`}
      value={held === null ? "" : key(held)}
      decided={decided !== null}
      options={options}
      onCommit={(value) => {
        const [weight, grade, connection] = value.split("|");
        editString(session, index, "pipe", value === "" ? null : { weight_ppf: Number(weight), grade, connection });
      }}
    />
  );
}
