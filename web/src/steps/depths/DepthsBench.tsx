// Setting depths: the window and the kick tolerance on the depth axis, and every shoe with the reason for its place.
import { Plus, Trash2 } from "lucide-react";
import { memo } from "react";
import { useTab } from "../../design/address";
import { adoption, useBench, useDocument, useEvaluated, useSnapshot, withoutString } from "../../design/context";
import { freshId } from "../../design/ids";
import type { DepthScale } from "../../depth/scale";
import { WindowTrack } from "../../depth/WindowTrack";
import { Button } from "../../ui/Button";
import { DocChoice, DocNumber } from "../../ui/DocField";
import { Headline } from "../../ui/Headline";
import { Empty, Panel } from "../../ui/Panel";
import { Tabs } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { WhyThere } from "./WhyThere";
import { GuideIfEmpty } from "../../help/StartGuide";
import { isEmpty } from "../../help/guide";
import { useReference } from "../../design/reference";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";
import { KicksAsked, useKicks } from "./kicks";
import { KickTrack } from "./KickTrack";
import { FreedomBrackets, Schools } from "./Schools";
import { StringsGrid } from "./StringsGrid";

const KICK_PX = 118;

export function DepthsBench({ scale, tracksPx }: { scale: DepthScale; tracksPx: number }) {
  const [tab, setTab] = useTab("cards");
  return (
    <KicksAsked>
      <WindowTrack scale={scale} widthPx={tracksPx - KICK_PX} grips={() => <FreedomBrackets scale={scale} x={tracksPx - KICK_PX - 16} />} />
      {/* the table of all strings needs its room */}
      {tab !== "table" && <KickTrack scale={scale} widthPx={KICK_PX} />}
      <Shoes tab={tab} onTab={setTab} />
    </KicksAsked>
  );
}

/** Holds nothing of the depth axis, so zooming does not draw it again. */
const Shoes = memo(function Shoes({ tab, onTab }: { tab: string; onTab: (tab: string) => void }) {
  return (
    <Panel title="Shoes" actions={<ShoeActions />}>
      <Tabs
        label="Shoes"
        tabs={[
          { value: "cards", title: TABS.depths.cards, content: <Cards /> },
          { value: "table", title: TABS.depths.table, content: <StringsGrid /> },
          { value: "schools", title: TABS.depths.schools, content: <Schools /> },
        ]}
        value={tab}
        onChange={onTab}
      />
    </Panel>
  );
});

function Cards() {
  const count = useEvaluated((e) => e.strings.length) ?? 0;
  const failure = useEvaluated((e) => e.depths.failure) ?? [];
  const mendedAt = useEvaluated((e) => e.depths.failure_place) ?? "/strings";
  const { goTo } = useBench();
  const reference = useReference();
  const decided = useDocument((d) => d.strings.length > 0);
  const method = useDocument((d) => d.policy.depths.method);
  const units = useUnits();
  return (
    <>
      <GuideIfEmpty when={useDocument(isEmpty)} />
      {count === 0 && (
        <Empty>
          {units.words(failure)}
          {mendedAt !== "/strings" && (
            <span className="mt-2 block">
              <Button
                onClick={() => {
                  goTo(reference.stepOf(mendedAt), mendedAt);
                }}
              >
                Go to {reference.title(reference.stepOf(mendedAt))}
              </Button>
            </span>
          )}
        </Empty>
      )}
      {count > 0 && !decided && (
        <p className="mb-2 text-[12px] text-mute">Proposed from the ground {method}. Move a shoe or adopt the program to decide it.</p>
      )}
      {Array.from({ length: count }, (_, index) => (
        <ShoeCard key={index} index={index} />
      ))}
    </>
  );
}

function ShoeActions() {
  const { session } = useBench();
  const document = useSnapshot("document");
  const evaluation = useSnapshot("evaluation");
  const adopt = adoption(document, evaluation);
  if (adopt.length > 0) {
    return (
      <Button
        onClick={() => {
          session.edit(adopt);
        }}
      >
        Adopt
      </Button>
    );
  }
  const add = () => {
    const strings = document.strings;
    const last = strings[strings.length - 1];
    const before = strings[strings.length - 2];
    const total = evaluation?.basis.total_md_ft ?? 0;
    const middle = last ? Math.round(((before?.shoe_md_ft ?? 0) + last.shoe_md_ft) / 20) * 10 : total;
    const fresh = { id: freshId("/strings"), role: last ? "intermediate" : "production", run: "cased", shoe_md_ft: middle };
    const at = Math.max(0, strings.length - 1);
    session.edit([{ path: "/strings", value: [...strings.slice(0, at), fresh, ...strings.slice(at)] }]);
  };
  return (
    <Button onClick={add}>
      <Plus size={13} aria-hidden /> String
    </Button>
  );
}

const ShoeCard = memo(function ShoeCard({ index }: { index: number }) {
  const string = useEvaluated((e) => e.strings[index])!;
  const decided = useDocument((d) => d.strings.length > 0);
  const { session, selected, select } = useBench();
  const units = useUnits();
  const size = string.od_in === null ? string.role : units.text(string.od_in, "size");
  return (
    <section
      aria-label={`${size} shoe`}
      className={`mb-2 border-l-[3px] pl-2 ${index === selected ? "border-petrol" : "border-rule"}`}
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
        <span className="w-28 text-[12px]">
          <DocChoice label={`${size} role`} path={`/strings/${index}/role`} fallback={string.role} />
        </span>
        <span className="ml-auto w-20">
          <DocNumber label={`${size} shoe depth`} path={`/strings/${index}/shoe_md_ft`} proposed={string.shoe_md_ft} />
        </span>
        <span className="w-6 text-[12px] text-mute">{units.unit("depth")}</span>
        <button
          type="button"
          className="text-mute hover:text-brick disabled:opacity-0"
          aria-label={`Remove the ${size} string`}
          disabled={!decided}
          onClick={() => {
            session.edit(withoutString(session.snapshot().document, index));
          }}
        >
          <Trash2 size={13} aria-hidden />
        </button>
      </div>
      <KickLine index={index} size={size} />
      {string.run === "driven" && (
        <p className="text-[12px] text-mute">Driven to here or to refusal; where it stops shallower, that depth counts.</p>
      )}
      {string.run === "jetted" && (
        <p className="text-[12px] text-mute">Jetted in: it carries nothing until the sea floor has settled around it.</p>
      )}
      <WhyThere index={index} />
      <SpareLine index={index} />
      <LinerLine index={index} />
    </section>
  );
});

/** Whether an unplanned string could be set above this one without taking its size. */
function SpareLine({ index }: { index: number }) {
  const units = useUnits();
  const above = useEvaluated((e) => e.strings[index - 1]);
  const spare = useEvaluated((e) => e.sizes.strings[index]?.spare);
  if (!above || above.role === "conductor") return null;
  return (
    <p className="text-[12px] text-mute">
      Contingency above it:{" "}
      {spare
        ? `${units.text(spare.od_in, "size")} in ${units.text(spare.bit_in, "size")} hole keeps this size`
        : "no spare size; an unplanned string takes this one's"}
    </p>
  );
}

/** What it would save to hang this string in the casing above, and what that costs. */
function LinerLine({ index }: { index: number }) {
  const { session } = useBench();
  const option = useEvaluated((e) => e.liners.strings[index]);
  const units = useUnits();
  if (!option) return null;
  const short = option.burst_factor_above !== null && option.burst_factor_above < option.burst_required;
  return (
    <details className="text-[12px]">
      <summary className="text-mute">As a liner from {units.text(option.hanger_md_ft, "depth")}</summary>
      <p className="text-mute">
        Saves {units.text(option.steel_saved_lbf, "force")} of steel and {units.text(option.cement_saved_bbl, "volume")} of cement. The
        casing above then takes this string&apos;s burst loads: factor{" "}
        <span className={short ? "font-semibold text-brick" : ""}>
          {option.burst_factor_above === null ? "unknown" : option.burst_factor_above.toFixed(2)}
        </span>
        , asks {option.burst_required.toFixed(2)}.
      </p>
      <Button
        className="mt-0.5"
        onClick={() => {
          const { document, evaluation } = session.snapshot();
          session.edit([
            ...adoption(document, evaluation),
            { path: `/strings/${index}/run`, value: "liner" },
            { path: `/strings/${index}/hanger_md_ft`, value: option.hanger_md_ft },
          ]);
        }}
      >
        Hang it as a liner
      </Button>
    </details>
  );
}

function KickLine({ index, size }: { index: number; size: string }) {
  const units = useUnits();
  const kick = useEvaluated((e) => e.depths.strings[index]?.kick);
  const greatest = useKicks()?.[index]?.greatest_intensity_ppg;
  if (!kick) return null;
  const short = kick.tolerance_bbl !== null && kick.tolerance_bbl < kick.required_bbl;
  return (
    <dl className="pairs text-[12.5px]">
      <dt className="text-mute">
        <Term>kick tolerance</Term>, asks {units.text(kick.required_bbl, "volume")}
      </dt>
      <dd className={`text-right ${short ? "font-semibold text-brick" : ""}`} data-testid={`kick-${index}`}>
        {kick.tolerance_bbl !== null ? (
          <Headline working={`depths/${index}/kick_tolerance`} title={`kick tolerance, ${size} shoe`}>
            {units.text(kick.tolerance_bbl, "volume")}
          </Headline>
        ) : kick.limited === false ? (
          "no limit: nothing breaks"
        ) : (
          "unknown"
        )}
      </dd>
      {kick.weak_md_ft !== null && !kick.weak_is_shoe && (
        <>
          <dt className="text-mute">weak point below the shoe</dt>
          <dd className="text-right">{units.text(kick.weak_md_ft, "depth")}</dd>
          <dt className="text-mute">at the shoe alone</dt>
          <dd className="text-right" data-testid={`kick-at-shoe-${index}`}>
            {kick.at_shoe_bbl === null ? (
              "no limit"
            ) : (
              <Headline working={`depths/${index}/kick_tolerance_at_shoe`} title={`kick tolerance of the ${size} shoe alone`}>
                {units.text(kick.at_shoe_bbl, "volume")}
              </Headline>
            )}
          </dd>
        </>
      )}
      <dt className="text-mute">
        <Term>kick intensity</Term> at the volume asked
      </dt>
      <dd className="text-right" data-testid={`intensity-${index}`}>
        {greatest === undefined
          ? "…"
          : greatest === null
            ? "unknown"
            : greatest >= 5
              ? `over ${units.text(5, "emw")}`
              : units.text(greatest, "emw")}
      </dd>
      <dt className="text-mute">
        <Term>full evacuation</Term> to gas, {kick.full_gas_margin_psi !== null && kick.full_gas_margin_psi < 0 ? "deficit" : "margin"}
        {kick.full_gas_md_ft !== null && ` at ${units.text(kick.full_gas_md_ft, "depth")}`}
      </dt>
      <dd className="text-right">
        {kick.full_gas_margin_psi === null ? (
          "unknown"
        ) : (
          <Headline working={`depths/${index}/full_gas`} title={`full evacuation to gas, ${size} shoe`}>
            {units.text(Math.abs(kick.full_gas_margin_psi), "pressure")}
          </Headline>
        )}
      </dd>
      <dt className="text-mute">
        <Term>MAASP</Term>
      </dt>
      <dd className="text-right">
        {kick.maasp_psi === null ? (
          "unknown"
        ) : (
          <Headline working={`depths/${index}/maasp`} title={`MAASP, ${size} shoe`}>
            {units.text(kick.maasp_psi, "pressure")}
          </Headline>
        )}
      </dd>
    </dl>
  );
}
