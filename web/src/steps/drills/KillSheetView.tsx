// The kill sheet of a hole: the design kick's, or that of what was read; every number with its working, printed on one page.
import { Printer } from "lucide-react";
import { useState } from "react";
import { getKillSheet, saidOf } from "../../design/api";
import { useBench, useEvaluated, useSnapshot, useWorkable } from "../../design/context";
import { identityOf, useRested } from "../../design/useRested";
import type { HoleDrill, KillSheet, Quantity } from "../../design/types";
import { Choice, NumberField } from "../../ui/Field";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { Empty } from "../../ui/Panel";
import { Titled } from "../../ui/Titled";
import { useUnits } from "../../ui/units";
import { KillMethods } from "./KillMethods";

const REST_MS = 200;
const NONE = "none: the mud holds it";
const UNKNOWN = "unknown";
const TITLES: Record<string, string> = {
  "/md_ft": "Depth",
  "/sidpp_psi": "SIDPP",
  "/sicp_psi": "SICP",
  "/gain_bbl": "Gain",
};

interface Read {
  sidpp: number | null;
  sicp: number | null;
  gain: number | null;
  depth: number | null;
}

const NOTHING: Read = { sidpp: null, sicp: null, gain: null, depth: null };

export function KillSheetView() {
  const units = useUnits();
  const holes = (useEvaluated((e) => e.drills.holes) ?? []).filter((h) => h.sheet !== null);
  const [picked, setPicked] = useState<string | null>(null);
  const [read, setRead] = useState<Read>(NOTHING);
  const hole = holes.find((h) => h.id === picked) ?? holes[holes.length - 1];
  if (hole === undefined) {
    return <Empty>No kill sheet yet: it needs a hole under preventers, its mud weight, and the casing and drill pipe in it.</Empty>;
  }
  return (
    <div className="grid gap-y-3">
      <div className="bordered grid grid-cols-[1.3fr_repeat(4,1fr)] items-end gap-x-3 text-[13px]" data-form="kill-sheet">
        <span>
          <span className="text-mute">Hole</span>
          <Choice
            label="Hole"
            place="kill/hole"
            value={hole.id}
            options={holes.map((h) => ({ value: h.id, text: units.words(h.hole) }))}
            onCommit={(id) => {
              setPicked(id);
              setRead(NOTHING);
            }}
          />
        </span>
        <Typed
          title="Depth"
          quantity="depth"
          value={read.depth}
          proposed={hole.bottom_md_ft}
          onCommit={(depth) => setRead({ ...read, depth })}
        />
        <Typed
          title="SIDPP"
          long="Shut-in drill pipe pressure"
          quantity="pressure"
          value={read.sidpp}
          proposed={hole.sheet?.read?.sidpp_psi}
          onCommit={(sidpp) => setRead({ ...read, sidpp })}
        />
        <Typed
          title="SICP"
          long="Shut-in casing pressure"
          quantity="pressure"
          value={read.sicp}
          proposed={hole.sheet?.read?.sicp_psi}
          onCommit={(sicp) => setRead({ ...read, sicp })}
        />
        <Typed
          title="Gain"
          quantity="volume"
          value={read.gain}
          proposed={hole.sheet?.read?.gain_bbl}
          onCommit={(gain) => setRead({ ...read, gain })}
        />
      </div>
      <Asked hole={hole} read={read} />
    </div>
  );
}

function Typed(props: {
  title: string;
  /** The whole of an abbreviation. */
  long?: string;
  quantity: Quantity;
  value: number | null;
  proposed?: number;
  onCommit: (v: number | null) => void;
}) {
  const units = useUnits();
  return (
    <label>
      <span className="text-mute" title={props.long}>
        {props.title}, {units.unit(props.quantity)}
      </span>
      <NumberField
        label={props.long ?? props.title}
        place={`kill/${props.title}`}
        quantity={props.quantity}
        optional
        value={props.value}
        proposed={props.proposed ?? null}
        onCommit={props.onCommit}
      />
    </label>
  );
}

/** The sheet of what is typed; what is not typed is the design kick's. */
function Asked({ hole, read }: { hole: HoleDrill; read: Read }) {
  const { session } = useBench();
  const document = useWorkable();
  const typed = Object.values(read).some((v) => v !== null);
  const kick = hole.sheet!.read;
  const asked = {
    hole: hole.id,
    md_ft: read.depth,
    sidpp_psi: read.sidpp ?? kick?.sidpp_psi ?? 0,
    sicp_psi: read.sicp ?? kick?.sicp_psi ?? 0,
    gain_bbl: read.gain ?? kick?.gain_bbl ?? 0,
  };
  const { data, error } = useRested(
    ["kill sheet", session.id],
    `${document === null ? "" : identityOf(document)} ${JSON.stringify(asked)}`,
    REST_MS,
    (signal) => (document === null || !typed ? Promise.resolve(null) : getKillSheet(document, asked, signal)),
  );
  const sheet = typed ? data : hole.sheet;
  if (!sheet) {
    return (
      <p role={error === null ? "status" : "alert"} className={`text-[12.5px] ${error === null ? "text-mute" : "text-brick"}`}>
        {error === null ? "The sheet is being worked…" : saidOf(error, (path) => TITLES[path] ?? path)}
      </p>
    );
  }
  return <Sheet sheet={sheet} asked={asked} own={!typed} />;
}

function Sheet({ sheet, asked, own }: { sheet: KillSheet; asked: Record<string, number | string | null>; own: boolean }) {
  const units = useUnits();
  return (
    <>
      <p className="flex flex-wrap items-center gap-3 text-[12px] text-mute">
        <Print asked={asked} />
        {own && sheet.read !== null && "For policy's kick at total depth; type what was read over it."}
        {sheet.read === null && "Pore pressure is not known at this depth: type what was read."}
      </p>
      <div className="grid grid-cols-2 gap-x-8 max-[1180px]:grid-cols-1">
        <Figures sheet={sheet} />
      </div>
      <KillMethods sheet={sheet} />
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.5fr)] gap-x-6 gap-y-3 max-[1180px]:grid-cols-1">
        <Titled title="Drill pipe pressure" note="as kill mud goes down">
          {sheet.schedule.length === 0 ? (
            <Empty>The slow pump pressure is not known.</Empty>
          ) : (
            <Facts
              label="Schedule"
              heads={[
                { title: "Strokes" },
                { title: "Pumped", unit: units.unit("volume") },
                { title: "Pressure", unit: units.unit("pressure") },
                { title: "Kill mud at", unit: units.unit("depth") },
              ]}
              rows={sheet.schedule.map((row) => [
                units.number(row.strokes, "count"),
                units.number(row.pumped_bbl, "volume"),
                <Headline key="psi" working={row.working} title={`Drill pipe pressure at ${units.number(row.strokes, "count")} strokes`}>
                  {units.number(row.psi, "pressure")}
                </Headline>,
                units.number(row.front_md_ft, "depth"),
              ])}
            />
          )}
        </Titled>
        <Titled title="Volumes and strokes" note={`${units.number(sheet.bbl_stroke, "stroke_volume")} ${units.unit("stroke_volume")}`}>
          <Volumes sheet={sheet} />
        </Titled>
      </div>
    </>
  );
}

function Print({ asked }: { asked: Record<string, number | string | null> }) {
  const { session } = useBench();
  const units = useUnits();
  const ready = useSnapshot("save") === "saved";
  const query = Object.entries(asked)
    .filter(([, v]) => v !== null)
    .map(([k, v]) => `${k}=${encodeURIComponent(String(v))}`)
    .join("&");
  return (
    <a
      href={ready ? `/api/designs/${session.id}/kill-sheet.pdf?${query}&${units.query}` : undefined}
      aria-disabled={!ready}
      className={`inline-flex items-center gap-1.5 rounded border border-rule px-2 py-0.5 text-ink hover:border-petrol ${ready ? "" : "opacity-50"}`}
    >
      <Printer size={13} aria-hidden /> Kill sheet as PDF
    </a>
  );
}

function Figures({ sheet }: { sheet: KillSheet }) {
  const units = useUnits();
  const shown = (value: number | null | undefined, quantity: Quantity) => units.text(value ?? null, quantity);
  const key = sheet.working;
  const slow = `${shown(sheet.slow_psi, "pressure")} at ${Math.round(sheet.slow_spm)} spm${sheet.slow_read || sheet.slow_psi === null ? "" : ", estimated"}`;
  const weighting = sheet.kill_ppg !== null && sheet.kill_ppg <= sheet.mud_ppg ? NONE : shown(sheet.barite_lb, "mass");
  const columns: (readonly (readonly [string, string, string | null])[])[] = [
    [
      ["Kill mud", shown(sheet.kill_ppg, "emw"), `${key}/kill_mud`],
      ["Initial circulating pressure", shown(sheet.icp_psi, "pressure"), `${key}/icp`],
      ["Final circulating pressure", shown(sheet.fcp_psi, "pressure"), `${key}/fcp`],
      ["Slow pump pressure", slow, sheet.slow_read || sheet.slow_psi === null ? null : `${key}/slow`],
      ["Choke margin over the schedule", shown(sheet.choke_margin_psi, "pressure"), null],
      ["Mud in the hole", shown(sheet.mud_ppg, "emw"), null],
      ["Weighting material", weighting, weighting === NONE ? null : `${key}/barite`],
    ],
    [
      ["MAASP", shown(sheet.maasp_psi, "pressure"), `${key}/maasp`],
      ["MAASP with kill mud", shown(sheet.maasp_kill_psi, "pressure"), `${key}/maasp_kill`],
      ["Height of the influx", shown(sheet.influx_ft, "depth"), sheet.influx_ft === null ? null : `${key}/influx_height`],
      ["Gradient of the influx", shown(sheet.influx_psi_ft, "gradient"), `${key}/influx`],
      ["Choke-line friction", shown(sheet.choke_line_psi, "pressure"), null],
      ["Casing pressure at the slow rate", shown(sheet.starting_psi, "pressure"), `${key}/starting`],
    ],
  ];
  return columns.map((rows, i) => (
    <dl key={i} className="grid grid-cols-[1fr_auto] text-[13px]">
      {rows.map(([title, text, working]) => (
        <div key={title} className="contents">
          <dt className="flex items-center border-b border-rule/60 text-mute">{title}</dt>
          <dd className="flex min-h-6 items-center justify-end border-b border-rule/60 tabular-nums">
            {working !== null && text !== UNKNOWN ? (
              <Headline working={working} title={title}>
                {text}
              </Headline>
            ) : (
              text
            )}
          </dd>
        </div>
      ))}
    </dl>
  ));
}

function Volumes({ sheet }: { sheet: KillSheet }) {
  const units = useUnits();
  return (
    <Facts
      label="Volumes"
      heads={[
        { title: "Part" },
        { title: "Length", unit: units.unit("depth") },
        { title: "Capacity", unit: units.unit("capacity") },
        { title: "Volume", unit: units.unit("volume") },
        { title: "Strokes" },
        { title: "Minutes" },
      ]}
      rows={[
        ...[...sheet.inside, ...sheet.annulus].map((row) => [
          units.words(row.part),
          units.number(row.bottom_md_ft - row.top_md_ft, "depth"),
          units.number(row.capacity_bbl_ft, "capacity"),
          units.number(row.volume_bbl, "volume"),
          <Headline key="strokes" working={row.working} title={`Strokes, ${units.words(row.part)}`}>
            {units.number(row.strokes, "count")}
          </Headline>,
          units.number(row.minutes, "minutes"),
        ]),
        ...sheet.sums.map((sum) => [
          <strong key={sum.title}>{sum.title}</strong>,
          "",
          "",
          units.number(sum.volume_bbl, "volume"),
          <Headline key="strokes" working={sum.working} title={`Strokes, ${sum.title.toLowerCase()}`}>
            {units.number(sum.strokes, "count")}
          </Headline>,
          units.number(sum.minutes, "minutes"),
        ]),
      ]}
    />
  );
}
