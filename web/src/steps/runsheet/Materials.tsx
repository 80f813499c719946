// What is ordered, by string and kind: with spares, weights, lead times, and the day by which it is ordered.
import { CalendarDays, Sheet as SheetIcon, Table2 } from "lucide-react";
import { useMemo, useState } from "react";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { MaterialRow, SheetDetail } from "../../design/types";
import { NumberField, TextField } from "../../ui/Field";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { DesignPapers } from "./DesignPapers";
import { editOrder } from "./edits";
import { Pick } from "./Sheet";
import { useSheet } from "./useSheet";

export function Materials() {
  const detail = useSheet();
  if (detail === undefined) return <Empty>The list is being made.</Empty>;
  return <List detail={detail} />;
}

function List({ detail }: { detail: SheetDetail }) {
  const units = useUnits();
  const spud = useDocument((d) => d.runsheet.spud ?? "");
  const first = useEvaluated((e) => e.runsheet);
  const [kind, setKind] = useState("");
  const [section, setSection] = useState("");
  const kinds = useMemo(() => [...new Set(detail.materials.map((m) => m.kind))], [detail]);
  const sections = useMemo(
    () => new Map(detail.materials.map((m) => [String(m.string), m.string === null ? "End of the well" : units.words(m.section)])),
    [detail, units],
  );
  const rows = useMemo(() => {
    const order = (m: MaterialRow) => (m.string ?? Infinity) * kinds.length + kinds.indexOf(m.kind);
    const found = detail.materials.filter((m) => (kind === "" || m.kind === kind) && (section === "" || String(m.string) === section));
    return found.sort((a, b) => (order(a) === order(b) ? 0 : order(a) - order(b)));
  }, [detail, kinds, kind, section]);
  const papers = [
    { file: "materials.csv", text: "CSV", Icon: Table2 },
    { file: "materials.xlsx", text: "XLSX", Icon: SheetIcon },
    {
      file: "calendar.ics",
      text: "Calendar of orders and tests",
      Icon: CalendarDays,
      missing: spud === "" ? "dates follow from a spud date: give it in the schedule" : undefined,
    },
  ];
  return (
    <>
      <div className="mb-1.5 flex flex-wrap items-center gap-1.5 text-[12.5px]">
        <Pick label="Kind" value={kind} options={[["", "All kinds"], ...kinds.map((k) => [k, k] as const)]} onPick={setKind} />
        <Pick label="String" value={section} options={[["", "All strings"], ...sections]} onPick={setSection} />
        <DesignPapers papers={papers} />
      </div>
      <p className="mb-1 text-[12px] text-mute" role="status">
        {rows.length} items. {units.text(detail.weight_lb, "mass")} in all
        {detail.weights_unknown > 0 && `, without ${detail.weights_unknown} whose weight is not known`}.
        {detail.cost > 0 &&
          ` ${units.number(detail.cost, "money")} at the prices given${detail.prices_unknown > 0 ? `, ${detail.prices_unknown} without` : ""}.`}
        {first?.first_order_day != null &&
          ` First order: ${first.first_order === "" ? dayWords(first.first_order_day) : first.first_order}.`}
      </p>
      <Table rows={rows} />
    </>
  );
}

function dayWords(day: number): string {
  return day < 0 ? `${-day} days before the spud` : `day ${day}`;
}

const HEADS = ["Item", "Number", "Spare", "Unit", "Weight", "Lead, d", "Wanted", "Order by", "Price", "Ordered on"];
const LEFT = new Set(["Item", "Unit"]);

function Table({ rows }: { rows: readonly MaterialRow[] }) {
  const units = useUnits();
  const today = new Date().toISOString().slice(0, 10);
  return (
    <table className="w-full border-collapse font-narrow text-[12.5px]" aria-label="Materials">
      <thead>
        <tr className="text-[11.5px] text-mute">
          {HEADS.map((title) => (
            <th
              key={title}
              scope="col"
              className={`sticky top-0 z-1 border-b border-rule bg-paper px-1 py-0.5 align-bottom font-normal ${LEFT.has(title) ? "text-left" : "text-right"}`}
            >
              {title}
              {title === "Weight" && `, ${units.unit("mass")}`}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, i) => (
          <Item
            key={row.key}
            row={row}
            today={today}
            head={i > 0 && rows[i - 1]!.string === row.string ? null : row.string === null ? "End of the well" : units.words(row.section)}
            kind={i > 0 && rows[i - 1]!.string === row.string && rows[i - 1]!.kind === row.kind ? null : row.kind}
          />
        ))}
      </tbody>
    </table>
  );
}

function Item({ row, today, head, kind }: { row: MaterialRow; today: string; head: string | null; kind: string | null }) {
  const units = useUnits();
  const { session } = useBench();
  const order = useDocument((d) => d.runsheet.orders?.find((o) => o.item === row.key));
  const at = useDocument((d) => d.runsheet.orders?.findIndex((o) => o.item === row.key) ?? -1);
  const name = units.words(row.what);
  const place = (key: string) => (at < 0 ? "" : `/runsheet/orders/${at}/${key}`);
  const patch = (change: Parameters<typeof editOrder>[2]) => {
    session.edit(editOrder(session.snapshot().document, row.key, change));
  };
  const late = row.order_by !== "" && row.ordered === "" && row.order_by < today;
  const count = (value: number) =>
    Number.isInteger(value) ? value.toLocaleString("en-US") : value.toLocaleString("en-US", { maximumFractionDigits: 0 });
  return (
    <>
      {head !== null && (
        <tr>
          <th scope="rowgroup" colSpan={HEADS.length} className="pt-1.5 text-left text-[12px] font-semibold">
            {head}
          </th>
        </tr>
      )}
      {kind !== null && (
        <tr>
          <th scope="rowgroup" colSpan={HEADS.length} className="px-1 pt-0.5 text-left text-[11px] font-normal text-mute">
            {kind}
          </th>
        </tr>
      )}
      <tr className="border-b border-rule/60 text-right align-baseline" data-item={row.key}>
        <th scope="row" className="px-1 text-left font-normal">
          {name}
        </th>
        <td className="px-1">{count(row.quantity)}</td>
        <td className="px-1">{row.spare === 0 ? "–" : count(row.spare)}</td>
        <td className="px-1 text-left">{row.unit}</td>
        <td className="px-1">{row.weight_lb === null ? "–" : units.number(row.weight_lb, "mass")}</td>
        <td className="w-10 min-w-10">
          <NumberField
            label={`Lead time of ${name}`}
            place={place("lead_days")}
            quantity="count"
            help=""
            value={order?.lead_days ?? null}
            optional
            proposed={row.lead_days}
            onCommit={(lead_days) => {
              patch({ lead_days });
            }}
          />
        </td>
        <td className="px-1 whitespace-nowrap">
          {row.needed_on !== "" ? row.needed_on : row.needed_day === null ? "–" : `day ${row.needed_day.toFixed(0)}`}
        </td>
        <td className={`px-1 whitespace-nowrap ${late ? "font-semibold text-brick" : ""}`}>
          {row.order_by !== "" ? row.order_by : row.order_day === null ? "unknown" : `day ${row.order_day.toFixed(0)}`}
          {late && <span className="block text-[11px]">past</span>}
        </td>
        <td className="bordered w-14 min-w-14">
          <NumberField
            label={`Price of ${name}`}
            place={place("price")}
            quantity="money"
            help=""
            value={order?.price ?? null}
            optional
            proposed={row.price}
            onCommit={(price) => {
              patch({ price });
            }}
          />
        </td>
        <td className="bordered w-19 min-w-19 pl-1">
          <TextField
            label={`Ordered on, ${name}`}
            place={place("ordered")}
            value={order?.ordered ?? ""}
            onCommit={(ordered) => {
              patch({ ordered: ordered.trim() });
            }}
          />
        </td>
      </tr>
    </>
  );
}
