// Hole and casing sizes: the chain, what drifts and what clears.
import { useQuery } from "@tanstack/react-query";
import { getCatalogue } from "../../design/api";
import { editString, useBench, useSnapshot } from "../../design/context";
import { Choice } from "../../ui/Field";
import { Empty, Panel, Scroll } from "../../ui/Panel";
import { StringsTable, Value } from "../../ui/StringsTable";
import { useUnits } from "../../ui/units";
import { Chains } from "./Chains";
import { NestPictures } from "./NestPictures";

export function SizesBench() {
  const evaluation = useSnapshot("evaluation");
  const document = useSnapshot("document");
  const { session } = useBench();
  const units = useUnits();
  const { data: catalogue } = useQuery({ queryKey: ["catalogue"], queryFn: getCatalogue, staleTime: Infinity });
  if (!evaluation || evaluation.strings.length === 0) {
    return (
      <Panel title="Sizes">
        <Empty>No string yet. Sizes follow once setting depths are proposed or typed.</Empty>
      </Panel>
    );
  }
  const options = (values: readonly number[], held: number | null, none: string) => {
    const all = [...new Set([...values, ...(held === null ? [] : [held])])].sort((a, b) => a - b);
    return [{ value: "", text: none }, ...all.map((v) => ({ value: String(v), text: units.number(v, "size") }))];
  };
  const choice = (index: number, key: "bit_in" | "od_in" | "opened_from_in", label: string, inForce: number | null) => {
    const decided = document.strings[index]?.[key] ?? null;
    const list = options(
      (key !== "od_in" ? catalogue?.bits_in : catalogue?.sizes_in) ?? [],
      decided ?? inForce,
      key === "opened_from_in" ? "no" : "proposed",
    );
    return (
      <Choice
        label={label}
        place={`/strings/${index}/${key}`}
        value={decided === null ? (inForce === null ? "" : String(inForce)) : String(decided)}
        decided={decided !== null}
        options={list}
        onCommit={(value) => {
          editString(session, index, key, value === "" ? null : Number(value));
        }}
      />
    );
  };
  const rows = evaluation.sizes.strings;
  const unit = units.unit("size");
  return (
    <Panel title="Hole and casing sizes">
      <Scroll label="Sizes">
        <StringsTable
          title="Sizes"
          columns={[
            {
              label: "Hole",
              unit,
              width: "14%",
              cell: (s, i) => (
                <Value applies={s.run !== "driven" && s.run !== "jetted"}>{choice(i, "bit_in", `${s.role} hole`, s.bit_in)}</Value>
              ),
            },
            {
              label: "Pilot hole",
              unit,
              width: "13%",
              cell: (s, i) => (
                <Value applies={i > 0 && s.run !== "driven" && s.run !== "jetted"}>
                  {choice(i, "opened_from_in", `${s.role} pilot hole`, null)}
                </Value>
              ),
            },
            { label: "Casing", unit, width: "14%", cell: (s, i) => choice(i, "od_in", `${s.role} casing`, s.od_in) },
            { label: "Coupling", unit, cell: (_, i) => units.number(rows[i]!.coupling_od_in, "diameter") },
            {
              label: "Clearance",
              unit,
              cell: (s, i) => {
                const { clearance_in, common_in, tight_in } = rows[i]!;
                if (s.bit_in === null || clearance_in === null) return <Value applies={false}>–</Value>;
                const limit = document.policy.sizes.clearance === "tight" ? tight_in! : common_in!;
                return (
                  <span className={clearance_in < limit ? "font-semibold text-brick" : ""}>{units.number(clearance_in, "diameter")}</span>
                );
              },
            },
            {
              label: "Common / tight",
              unit,
              cell: (_, i) => `${units.number(rows[i]!.common_in, "diameter", 1)} / ${units.number(rows[i]!.tight_in, "diameter", 1)}`,
            },
            {
              label: "Drift above",
              unit,
              cell: (s, i) =>
                i === 0 || s.bit_in === null ? <Value applies={false}>–</Value> : units.number(rows[i]!.outer_drift_in, "diameter"),
            },
            {
              label: "Bit-to-drift clearance",
              unit,
              cell: (_, i) => {
                const margin = rows[i]!.bit_margin_in;
                if (margin === null) return <Value applies={false}>–</Value>;
                return <span className={margin < 0 ? "font-semibold text-brick" : ""}>{units.number(margin, "diameter")}</span>;
              },
            },
          ]}
        />
        <div className="mt-3">
          <NestPictures />
        </div>
        <Chains />
        <p className="mt-3 max-w-prose text-[12px] text-mute">
          Clearance is hole less coupling, on the diameter. Drift is that of the pipe chosen above. Sizes in italics are proposed: the usual
          chain from the production casing outward.
        </p>
      </Scroll>
    </Panel>
  );
}
