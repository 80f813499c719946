// The ground: profiles on the depth axis, and tables for zones, profiles, site and trajectory.
import { memo } from "react";
import { useTab } from "../../design/address";
import { useAt, useBench, useDocument, useSnapshot } from "../../design/context";
import type { DepthScale } from "../../depth/scale";
import { WindowTrack } from "../../depth/WindowTrack";
import { DocChoice, DocNumber, DocText, FieldRow } from "../../ui/DocField";
import { Panel } from "../../ui/Panel";
import type { ColumnSpec } from "../../ui/grid/columns";
import { Grid } from "../../ui/grid/Grid";
import { Tabs } from "../../ui/Tabs";
import { useUnits } from "../../ui/units";
import { GuideIfEmpty } from "../../help/StartGuide";
import { isEmpty } from "../../help/guide";
import { TABS } from "../tabs";
import { EstimateFracture } from "./EstimateFracture";
import { newPoint, newStation, newTemperature, newZone } from "./newRows";
import { MoveWater } from "./MoveWater";
import { PathPicture } from "./PathPicture";
import { PlanPath } from "./PlanPath";
import type { ProfileKey } from "./PointGrips";
import { PointGrips, isProfileKey } from "./PointGrips";

const ZONES: readonly ColumnSpec[] = [
  "name",
  { key: "top_tvd_ft", label: "Top TVD" },
  { key: "base_tvd_ft", label: "Base TVD" },
  "rock",
  "fluid",
];
const FLAGS: readonly ColumnSpec[] = [
  "name",
  { key: "permeable", label: "Perm." },
  "hazards:losses",
  { key: "hazards:overpressure", label: "Abnormal pressure" },
  "hazards:caving",
  { key: "case_before_deeper", label: "Case off" },
  { key: "shoe_allowed", label: "Shoe OK" },
  { key: "gas_contact_tvd_ft", label: "Gas contact TVD" },
  { key: "standoff_percent", label: "Standoff" },
];
const TESTS: readonly ColumnSpec[] = ["tvd_ft", "emw_ppg", "kind"];
const TEMPERATURES: readonly ColumnSpec[] = ["tvd_ft", "temperature_f"];
const POINTS: readonly ColumnSpec[] = ["tvd_ft", "emw_ppg"];
const STATIONS: readonly ColumnSpec[] = ["md_ft", "inclination_deg", "azimuth_deg"];

const TRACK_SHARE = 0.64;

export function GroundBench({ scale, tracksPx }: { scale: DepthScale; tracksPx: number }) {
  const zones = useAt("/ground/zones") as readonly unknown[];
  const [tab, setTab] = useTab("");
  const shown = tab in TABS.ground ? tab : zones.length > 0 ? "zones" : "site";
  return (
    <>
      <WindowTrack
        scale={scale}
        widthPx={Math.floor(tracksPx * TRACK_SHARE)}
        grips={isProfileKey(shown) ? (x, ppgAt) => <PointGrips profile={shown} scale={scale} x={x} ppgAt={ppgAt} /> : undefined}
      />
      <GroundPanel shown={shown} onShow={setTab} />
    </>
  );
}

/** A profile, with where its points came from once one of them was measured. */
function ProfileGrid({ name, empty }: { name: ProfileKey | "overburden"; empty: string }) {
  const points = useDocument((d) => d.ground[name]);
  const measured = points.some((p) => p.source);
  const told = [{ label: "Source", unit: "", px: 170, left: true, cell: (i: number) => points[i]?.source ?? "" }];
  return (
    <Grid
      title={TABS.ground[name]}
      className={measured ? "max-w-120" : "max-w-80"}
      target={name}
      path={`/ground/${name}`}
      columns={POINTS}
      told={measured ? told : undefined}
      sortBy="tvd_ft"
      newRow={newPoint}
      empty={empty}
    />
  );
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const GroundPanel = memo(function GroundPanel({ shown, onShow }: { shown: string; onShow: (tab: string) => void }) {
  const profile = (name: ProfileKey | "overburden", empty: string) => ({
    value: name,
    title: TABS.ground[name],
    content: (
      <>
        <ProfileGrid name={name} empty={empty} />
        {name === "fracture" && <EstimateFracture />}
      </>
    ),
  });
  const tabs = [
    { value: "site", title: TABS.ground.site, content: <SiteForm /> },
    {
      value: "path",
      title: TABS.ground.path,
      content: (
        <>
          <PathPicture />
          <Grid
            title="Station"
            className="max-w-96"
            target="stations"
            path="/trajectory/stations"
            columns={STATIONS}
            sortBy="md_ft"
            newRow={newStation}
            least={2}
            empty=""
          />
          <PlanPath />
        </>
      ),
    },
    {
      value: "zones",
      title: TABS.ground.zones,
      content: (
        <Grid
          title="Zone"
          target="zones"
          path="/ground/zones"
          columns={ZONES}
          sortBy="top_tvd_ft"
          newRow={newZone}
          empty="No zone yet: fresh water, losses and shoe rules need them."
        />
      ),
    },
    {
      value: "flags",
      title: TABS.ground.flags,
      content: (
        <>
          <Grid
            title="Zone flags"
            className="font-narrow"
            target="zones"
            path="/ground/zones"
            columns={FLAGS}
            sortBy="top_tvd_ft"
            newRow={newZone}
            empty="No zone yet."
          />
          <ZoneNotes />
        </>
      ),
    },
    profile("pore", "No pore pressure yet: at least two points are needed."),
    profile("fracture", "No fracture gradient yet: at least two points are needed."),
    {
      value: "leak_off_tests",
      title: TABS.ground.leak_off_tests,
      content: (
        <Grid
          title="Leak-off test"
          className="max-w-80"
          target="leak_off_tests"
          path="/ground/leak_off_tests"
          columns={TESTS}
          sortBy="tvd_ft"
          newRow={newPoint}
          empty="No leak-off test yet: a measured one replaces the fracture profile at its depth."
        />
      ),
    },
    profile("stability", "No stability minimum: pore pressure alone sets the least mud."),
    profile("overburden", "No overburden yet: estimates of fracture need it."),
    {
      value: "temperature",
      title: TABS.ground.temperature,
      content: (
        <Grid
          title="Temperature"
          className="max-w-80"
          target="temperature"
          path="/ground/temperature"
          columns={TEMPERATURES}
          sortBy="tvd_ft"
          newRow={newTemperature}
          empty="No temperature profile: the temperatures at surface and total depth on the site tab are joined by a line."
        />
      ),
    },
  ];
  return (
    <Panel title="Basis and ground">
      <GuideIfEmpty when={useDocument(isEmpty)} />
      <Tabs label="Ground" tabs={tabs} value={shown} onChange={onShow} />
    </Panel>
  );
});

/** What follows from each zone's fluid and flags. */
function ZoneNotes() {
  const notes = useSnapshot("evaluation")?.depths.zone_notes ?? [];
  const zones = useAt("/ground/zones") as readonly { name: string }[];
  const units = useUnits();
  if (notes.length === 0) return null;
  return (
    <section aria-label="What follows from the zones" className="mt-3 text-[12px]">
      <h3 className="text-[13px] font-semibold">What follows</h3>
      {notes.map((note, i) => (
        <p key={i} className="leading-snug">
          {notes[i - 1]?.index !== note.index && <span className="font-semibold">{zones[note.index]?.name}. </span>}
          <span className="text-mute">{units.words(note.text)}</span>
        </p>
      ))}
    </section>
  );
}

const SITE = [
  "rig_floor_ft",
  "water_depth_ft",
  "cellar_depth_ft",
  "flowline_height_ft",
  "rotary_room_ft",
  "surface_temperature_f",
  "bottom_temperature_f",
  "flowing_wellhead_f",
  "h2s_ppm",
  "co2_percent",
];

function SiteForm() {
  const units = useUnits();
  const document = useSnapshot("document");
  const evaluation = useSnapshot("evaluation");
  const { session } = useBench();
  const stations = document.trajectory.stations;
  const keys = document.site.setting === "subsea" ? [...SITE, "choke_line_psi"] : SITE;
  return (
    <div>
      <div className="grid grid-cols-[1fr_12rem] items-center border-b border-rule/60 py-0.5">
        <span>Well name</span>
        <DocText label="Well name" path="/name" />
      </div>
      <div className="grid grid-cols-[1fr_12rem] items-center border-b border-rule/60 py-0.5">
        <span>Setting</span>
        <DocChoice path="/site/setting" />
      </div>
      {keys.map((key) => (
        <FieldRow key={key} path={`/site/${key}`} />
      ))}
      <div className="grid grid-cols-[1fr_5.5rem_3rem] items-center py-px">
        <span>Total depth, MD</span>
        <DocNumber label="Total depth" path={`/trajectory/stations/${stations.length - 1}/md_ft`} />
        <span className="pl-1.5 text-mute">{units.unit("depth")}</span>
      </div>
      {document.site.setting === "subsea" && <MoveWater />}
      <p className="mt-2 text-[12px] text-mute">
        Every depth is from the rig floor. {evaluation && `The ground is at ${units.text(evaluation.basis.ground_md_ft, "depth")}.`} An
        empty field is unknown.
      </p>
      <label className="mt-2 block">
        <span className="text-[12px] text-mute">Note</span>
        <textarea
          className="cell min-h-20 border-rule!"
          data-place="/note"
          defaultValue={document.note}
          key={document.note}
          maxLength={20000}
          onBlur={(event) => {
            if (event.target.value !== document.note) session.edit([{ path: "/note", value: event.target.value }]);
          }}
        />
      </label>
    </div>
  );
}
