// One string: its sections, the least factor of each kind with what governs where, and in hand its cases and strength.
import { Fragment, useEffect, useRef } from "react";
import { useBench, useSnapshot } from "../../design/context";
import type { LoadResult, LoadsResult, PipeRow, SectionResult } from "../../design/types";
import { Headline } from "../../ui/Headline";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";
import { CaseTable } from "./CaseTable";
import { Offers } from "./Offers";
import { Sections } from "./Sections";
import { StrengthPicture } from "./StrengthPicture";
import { StringOptions } from "./StringOptions";

interface Props {
  index: number;
  loads: LoadsResult | undefined;
  chosen: string | null;
  onChoose: (name: string | null) => void;
}

export function StringCard({ index, loads, chosen, onChoose }: Props) {
  const evaluation = useSnapshot("evaluation")!;
  const { selected, select } = useBench();
  const units = useUnits();
  const string = evaluation.strings[index]!;
  const row = evaluation.pipe.strings[index]!;
  const size = string.od_in === null ? string.role : units.text(string.od_in, "size");
  const inHand = index === selected;
  const head = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // the card that was in hand folds up and would carry this one out of sight
    if (inHand) head.current?.scrollIntoView({ block: "nearest" });
  }, [inHand]);
  return (
    <section
      aria-label={`${size} pipe`}
      className={`mb-2.5 border-l-[3px] pl-2 ${inHand ? "border-petrol" : "border-rule"}`}
      onFocus={() => {
        select(index);
      }}
    >
      <div ref={head} className="flex items-center gap-2">
        <button
          type="button"
          className="text-[13px] font-semibold hover:text-petrol"
          onClick={() => {
            select(index);
          }}
        >
          {size}
        </button>
        <span className="text-[12px] text-mute">
          {string.role}
          {string.run === "liner" && ", liner"}
        </span>
      </div>
      <Sections index={index} size={size} />
      {string.role === "conductor" ? (
        <p className="text-[12px] text-mute">Conductor: it carries the wellhead with the casing inside it; no pressure is worked here.</p>
      ) : (
        <Factors row={row} index={index} size={size} />
      )}
      {inHand && string.role !== "conductor" && (
        <InHand index={index} size={size} row={row} loads={loads} chosen={chosen} onChoose={onChoose} />
      )}
    </section>
  );
}

function InHand({ index, size, row, loads, chosen, onChoose }: { index: number; size: string; row: PipeRow } & Omit<Props, "index">) {
  const policy = useSnapshot("document").policy.pipe.factors;
  const units = useUnits();
  const place = Math.max(0, row.loads.find((l) => l.kind === "triaxial")?.section ?? 0);
  return (
    <div className="mt-1 flex flex-col gap-1.5">
      {loads && (
        <p className="text-[12px] leading-snug text-mute">
          {units.words(loads.governs)}
          {loads.neutral_md_ft !== null && ` Hung in its mud it is in compression below ${units.text(loads.neutral_md_ft, "depth")}.`}
          {row.buckles.length > 0 && ` ${units.words(row.buckles)}`}
        </p>
      )}
      {row.sections.map((section, i) => (
        <Ratings key={i} section={section} several={row.sections.length > 1} />
      ))}
      {loads && <CaseTable loads={loads} chosen={chosen} onChoose={onChoose} title={`${size} load cases`} />}
      <Offers index={index} />
      {loads && row.sections.length > 0 && (
        <details className="text-[12px]" open>
          <summary className="text-mute">Strength{row.sections.length > 1 ? ` of section ${place + 1}` : ""}</summary>
          <StrengthPicture
            loads={loads}
            sections={row.sections}
            place={place}
            chosen={chosen}
            factors={{ burst: policy?.burst ?? 1.1, collapse: policy?.collapse ?? 1.125, tension: policy?.tension ?? 1.6 }}
          />
          <p className="text-mute">
            Ellipse for pressure on one side, at the factor asked and dotted at yield; box: burst, collapse, tension over theirs. The
            factors above count both sides.
          </p>
        </details>
      )}
      <StringOptions index={index} size={size} />
    </div>
  );
}

function Factors({ row, index, size }: { row: PipeRow; index: number; size: string }) {
  const units = useUnits();
  if (row.loads.length === 0) return <p className="text-[12px] text-mute">Loads unknown.</p>;
  const shown = row.loads.filter((l) => l.kind !== "compression" || l.factor < 2 * l.required);
  return (
    <table className="w-full text-[12.5px]" aria-label={`${size} loads`}>
      <tbody>
        {shown.map((load) => (
          <FactorRow key={load.kind} load={load} index={index} size={size} />
        ))}
        {row.hung_factor !== null && (
          <tr>
            <th scope="row" className="text-left font-normal text-mute">
              carries {units.text(row.hung_lbf, "force")} on its top
            </th>
            <td className={`text-right ${row.hung_factor < 1.2 ? "font-semibold text-brick" : ""}`}>
              <Headline working={`pipe/${index}/hung`} title={`load on the top of ${size}`}>
                {row.hung_factor.toFixed(2)}
              </Headline>
            </td>
            <td />
          </tr>
        )}
      </tbody>
    </table>
  );
}

function FactorRow({ load, index, size }: { load: LoadResult; index: number; size: string }) {
  const units = useUnits();
  const thin = load.factor < load.required - 1e-9;
  return (
    <tr>
      <th scope="row" className="text-left font-normal text-mute">
        <Term>{load.kind}</Term>: {load.name} at {units.text(load.at_md_ft, "depth")}
      </th>
      <td className={`text-right ${thin ? "font-semibold text-brick" : ""}`} data-testid={`factor-${index}-${load.kind}`}>
        <Headline working={`pipe/${index}/${load.kind}`} title={`${load.kind} factor, ${size}`}>
          {load.factor.toFixed(2)}
        </Headline>
      </td>
      <td className="w-[4.6rem] text-right text-mute">asks {load.required.toFixed(Math.abs(load.required - 1.125) < 1e-6 ? 3 : 2)}</td>
    </tr>
  );
}

function Ratings({ section, several }: { section: SectionResult; several: boolean }) {
  const units = useUnits();
  const rows = [
    ["burst", units.text(section.burst_psi, "pressure")],
    ["body", units.text(section.body_lbf, "force")],
    ["coupling", units.text(section.coupling_psi, "pressure")],
    ["joint", units.text(section.joint_lbf, "force")],
    ["leak", units.text(section.leak_psi, "pressure")],
    ["make-up", section.torque_ft_lbf === null ? "to its mark" : units.text(section.torque_ft_lbf, "torque")],
    ["collapse", units.text(section.collapse_psi, "pressure")],
    ["at least", section.torque_least_ft_lbf === null ? "–" : units.text(section.torque_least_ft_lbf, "torque")],
    ["ID", units.text(section.id_in, "diameter")],
    ["joint OD", units.text(section.coupling_od_in, "diameter")],
    [section.special_drift ? "special drift" : "drift", units.text(section.drift_in, "diameter")],
    ["joints", `${section.joints_least} to ${section.joints_most}`],
  ] as const;
  return (
    <details className="text-[12px]" open={!several}>
      <summary className="text-mute">
        Ratings{several && `, ${units.text(section.weight_ppf, "linear_weight")} ${section.grade} ${section.connection}`}
        {section.suits_service === false && ", not for sour service"}
      </summary>
      {section.ends_because.length > 0 && <p className="text-mute">{units.words(section.ends_because)}</p>}
      <dl className="grid grid-cols-[auto_auto_auto_auto] justify-between gap-x-2">
        {rows.map(([name, text]) => (
          <Fragment key={name}>
            <dt className="text-mute">
              <Term>{name}</Term>
            </dt>
            <dd className="text-right">{text}</dd>
          </Fragment>
        ))}
      </dl>
    </details>
  );
}
