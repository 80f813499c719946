// Policy: every margin, limit, factor and method that the design is judged by, step by step, as the document describes it.
import { useReference } from "../../design/reference";
import { FieldRow } from "../../ui/DocField";
import { Panel, Scroll } from "../../ui/Panel";
import { Grid } from "../../ui/grid/Grid";
import type { Row } from "../../ui/grid/columns";
import type { Target } from "../../design/types";
import { Connections } from "./Connections";

/** Lists of policy that are tables of their own, by their place in it: how a new row begins. */
const TABLES: Readonly<Record<string, { target: Target; sortBy: string | null; newRow: () => Row; least: number; empty: string }>> = {
  "depths/kick_minimums": {
    target: "kick_minimums",
    sortBy: "from_hole_in",
    newRow: () => ({ from_hole_in: 6, volume_bbl: 15 }),
    least: 0,
    empty: "No minimum is asked.",
  },
  "sizes/pairs": {
    target: "pairs",
    sortBy: "od_in",
    newRow: () => ({ od_in: 7, hole_in: 8.5, use: "common" }),
    least: 0,
    empty: "No pair: every casing is measured by its clearance.",
  },
  "sizes/clearances": {
    target: "clearances",
    sortBy: "from_od_in",
    newRow: () => ({ from_od_in: 5, common_in: 0.8, tight_in: 0.6 }),
    least: 1,
    empty: "",
  },
  "preventers/least_elements": {
    target: "least_elements",
    sortBy: "from_class_psi",
    newRow: () => ({ from_class_psi: 10_000, annulars: 1, blind_rams: 1, blind: "blind shear rams", pipe_rams: 2, variable_rams: 1 }),
    least: 1,
    empty: "",
  },
  "preventers/least_at_sea": {
    target: "least_elements",
    sortBy: "from_class_psi",
    newRow: () => ({ from_class_psi: 10_000, annulars: 2, blind_rams: 1, blind: "blind shear rams", pipe_rams: 2, variable_rams: 1 }),
    least: 1,
    empty: "",
  },
  "sea/set_up": {
    target: "set_up",
    sortBy: "hours",
    newRow: () => ({ hours: 24, share: 0.1 }),
    least: 2,
    empty: "",
  },
  "runsheet/rates": {
    target: "drilling_rates",
    sortBy: "from_hole_in",
    newRow: () => ({ from_hole_in: 6, ft_hour: 20, bit_hours: 35 }),
    least: 0,
    empty: "No rate: how long drilling takes is unknown.",
  },
  "runsheet/joints": {
    target: "casing_rates",
    sortBy: "from_od_in",
    newRow: () => ({ from_od_in: 5, joints_hour: 18 }),
    least: 0,
    empty: "No rate: how long casing takes is unknown.",
  },
  "runsheet/spread": {
    target: "time_spread",
    sortBy: null,
    newRow: () => ({ kind: "drilling", least: 0.8, most: 1.6 }),
    least: 0,
    empty: "No spread: every time is as planned.",
  },
  "runsheet/leads": {
    target: "lead_times",
    sortBy: null,
    newRow: () => ({ kind: "casing", days: 120 }),
    least: 0,
    empty: "No lead time: when to order is unknown.",
  },
  "mud/drill_strings": {
    target: "drill_strings",
    sortBy: "from_hole_in",
    newRow: () => ({ from_hole_in: 6, pipe_od_in: 3.5, collar_od_in: 4.75, collar_length_ft: 450, pipe_id_in: 2.764, collar_id_in: 2.25 }),
    least: 1,
    empty: "",
  },
};

export function PolicyBench() {
  const reference = useReference();
  return (
    <Panel title="Policy">
      <Scroll label="Policy">
        <p className="mb-2 text-[12px] text-mute">Defaults are common practice, not a rule of any place. Local rules prevail.</p>
        <div className="columns-2 gap-8">
          {reference.keys("/policy").map((step) => (
            <StepPolicy key={step} step={step} />
          ))}
        </div>
      </Scroll>
    </Panel>
  );
}

/** The fields of one step under their headings, then its tables. */
function StepPolicy({ step }: { step: string }) {
  const reference = useReference();
  const path = `/policy/${step}`;
  const keys = reference.keys(path);
  const of = (kind: string) => keys.filter((key) => reference.at(`${path}/${key}`).kind === kind);
  const plain = keys.filter((key) => !["list", "part"].includes(reference.at(`${path}/${key}`).kind));
  const groups = [...new Set(plain.map((key) => reference.at(`${path}/${key}`).group))];
  return (
    <section aria-label={`Policy, ${reference.title(step)}`} className="mb-4">
      <h3 className="mb-1 break-after-avoid border-b-2 border-petrol/50 text-[13.5px] font-semibold">{reference.title(step)}</h3>
      {of("part").map((part) => (
        <Block
          key={part}
          title={reference.at(`${path}/${part}`).title}
          paths={reference.keys(`${path}/${part}`).map((key) => `${path}/${part}/${key}`)}
        />
      ))}
      {groups.map((group) => (
        <Block
          key={group}
          title={group}
          paths={plain.filter((key) => reference.at(`${path}/${key}`).group === group).map((key) => `${path}/${key}`)}
        />
      ))}
      {of("list").map((key) =>
        key === "connections" ? <Connections key={key} /> : <Table key={key} path={`${path}/${key}`} of={`${step}/${key}`} />,
      )}
    </section>
  );
}

function Block({ title, paths }: { title: string; paths: readonly string[] }) {
  return (
    <div className="mb-2.5 break-inside-avoid">
      {title && <h4 className="text-[12px] text-mute">{title}</h4>}
      {paths.map((path) => (
        <FieldRow key={path} path={path} />
      ))}
    </div>
  );
}

function Table({ path, of }: { path: string; of: string }) {
  const reference = useReference();
  const table = TABLES[of]!;
  const { title } = reference.at(path);
  return (
    <div className="mb-2.5 break-inside-avoid">
      <h4 className="mb-0.5 text-[12px] text-mute">{title}</h4>
      <Grid title={title} path={path} columns={reference.keys(`${path}/*`)} className="font-narrow" {...table} />
    </div>
  );
}
