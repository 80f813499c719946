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
import { Empty, Panel } from "../../ui/Panel";
import { Tabs } from "../../ui/Tabs";
import { TABS } from "../tabs";
import { WhyThere } from "./WhyThere";
import { GuideIfEmpty } from "../../help/StartGuide";
import { isEmpty } from "../../help/guide";
import { useReference } from "../../design/reference";
import { useUnits } from "../../ui/units";
import { KicksAsked } from "./kicks";
import { KickTrack } from "./KickTrack";
import { KickLine, LinerLine, SpareLine } from "./ShoeLines";
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
