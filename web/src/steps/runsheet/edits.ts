// What the person does with the sheet, as changes of the document. No React.
import { freshId } from "../../design/ids";
import type { Change, Design, LineRow, RunSheet } from "../../design/types";

type StepEdit = NonNullable<RunSheet["edits"]>[number];
type OwnStep = NonNullable<RunSheet["steps"]>[number];
type Order = NonNullable<RunSheet["orders"]>[number];
type Rate = NonNullable<RunSheet["rates"]>[number];

const EDITS = "/runsheet/edits";
const STEPS = "/runsheet/steps";
const RATES = "/runsheet/rates";
const ORDERS = "/runsheet/orders";
const NOTHING = { after: null, crossed: false, note: "", hours: null, done: false, done_by: "" } as const;

/** Nothing is said by it any more: it is no edit. */
function isEmpty(edit: StepEdit): boolean {
  return edit.after == null && !edit.crossed && !edit.note && edit.hours == null && !edit.done && !edit.done_by;
}

export function editOf(sheet: RunSheet, key: string): StepEdit | undefined {
  return (sheet.edits ?? []).find((e) => e.step === key);
}

/** One step edited; an edit that says nothing any more goes. */
export function editStep(document: Design, key: string, patch: Partial<StepEdit>): Change[] {
  const edits = document.runsheet.edits ?? [];
  const held = edits.find((e) => e.step === key);
  const next: StepEdit = { ...NOTHING, id: freshId(EDITS), step: key, ...held, ...patch };
  const rows = held === undefined ? [...edits, next] : edits.map((e) => (e === held ? next : e));
  return [{ path: EDITS, value: rows.filter((e) => !isEmpty(e)) }];
}

/** A step put behind another; an own step follows it from then on. */
export function moveStep(document: Design, line: LineRow, after: string): Change[] {
  if (line.own === "") {
    // the last that was moved stands where it was put
    const others = (document.runsheet.edits ?? []).filter((e) => e.step !== line.key);
    const held = editOf(document.runsheet, line.key);
    return [{ path: EDITS, value: [...others, { ...NOTHING, id: freshId(EDITS), step: line.key, ...held, after }] }];
  }
  const steps = (document.runsheet.steps ?? []).map((s) => (s.id === line.own ? { ...s, after } : s));
  return [{ path: STEPS, value: steps }];
}

/** Up or down by one: behind the step before the one above, or behind the one below. */
export function moveBy(document: Design, lines: readonly LineRow[], at: number, by: 1 | -1): Change[] | null {
  const line = lines[at];
  if (line === undefined) return null;
  const behind = by === 1 ? lines[at + 1] : lines[at - 2];
  if (by === 1 ? behind === undefined : at === 0) return null;
  return moveStep(document, line, behind?.key ?? "");
}

/** A new step of one's own behind another, of its kind of work. */
export function addStep(document: Design, after: LineRow | undefined): { id: string; changes: Change[] } {
  const id = freshId(STEPS);
  const step: OwnStep = {
    id,
    text: "New step",
    kind: after?.kind ?? "preparation",
    after: after?.key ?? "",
    hours: null,
    caution: "",
    signs: after?.signs ?? "",
    hold: false,
  };
  return { id, changes: [{ path: STEPS, value: [...(document.runsheet.steps ?? []), step] }] };
}

/** An own step taken out; what followed it follows what it followed. */
export function removeStep(document: Design, id: string): Change[] {
  const steps = document.runsheet.steps ?? [];
  const gone = steps.find((s) => s.id === id);
  const left = steps.filter((s) => s.id !== id).map((s) => (s.after === `own/${id}` ? { ...s, after: gone?.after ?? "" } : s));
  const edits = (document.runsheet.edits ?? [])
    .filter((e) => e.step !== `own/${id}`)
    .map((e) => (e.after === `own/${id}` ? { ...e, after: gone?.after ?? "" } : e));
  return [
    { path: STEPS, value: left },
    { path: EDITS, value: edits },
  ];
}

/** The rate of a whole section, or none so that policy's holds. */
export function rateSection(document: Design, string: string, ftHour: number | null): Change[] {
  const rates = document.runsheet.rates ?? [];
  const held = rates.find((r) => r.string === string && r.zone == null);
  const others = rates.filter((r) => r !== held);
  if (ftHour === null) return [{ path: RATES, value: others }];
  const next: Rate = { id: held?.id ?? freshId(RATES), string, zone: null, ft_hour: ftHour };
  return [{ path: RATES, value: held === undefined ? [...rates, next] : rates.map((r) => (r === held ? next : r)) }];
}

const USUAL_FT_HOUR = 20;

/** A zone with a rate of its own, to be typed over. */
export function rateZone(document: Design, string: string, zone: string): Change[] {
  const rate: Rate = { id: freshId(RATES), string, zone, ft_hour: USUAL_FT_HOUR };
  return [{ path: RATES, value: [...(document.runsheet.rates ?? []), rate] }];
}

export function removeRate(document: Design, id: string): Change[] {
  return [{ path: RATES, value: (document.runsheet.rates ?? []).filter((r) => r.id !== id) }];
}

/** What is known of an order; one of which nothing is known goes. */
export function editOrder(document: Design, item: string, patch: Partial<Order>): Change[] {
  const orders = document.runsheet.orders ?? [];
  const held = orders.find((o) => o.item === item);
  const next: Order = { id: freshId(ORDERS), item, lead_days: null, price: null, ordered: "", ...held, ...patch };
  const rows = held === undefined ? [...orders, next] : orders.map((o) => (o === held ? next : o));
  return [{ path: ORDERS, value: rows.filter((o) => o.lead_days != null || o.price != null || o.ordered !== "") }];
}
