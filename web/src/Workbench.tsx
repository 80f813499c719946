// The workbench: the bar, the path of steps, the section, the bench of the step at hand, and the margin.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useLayoutEffect, useMemo, useRef, useState, useSyncExternalStore } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { getDesign } from "./design/api";
import type { Bench } from "./design/context";
import { useString } from "./design/address";
import { BenchContext, useAt, useEvaluated, useSnapshot } from "./design/context";
import { Session } from "./design/session";
import { useReference } from "./design/reference";
import type { DesignView, Step } from "./design/types";
import { AxisButtons } from "./depth/AxisButtons";
import { ReadingStrip, STRIP_PX } from "./depth/ReadingStrip";
import { depthAxis } from "./depth/scale";
import { useDepthView } from "./depth/useDepthView";
import { usePreferences } from "./preferences";
import type { TypeOverRequest } from "./ui/TypeOver";
import { TypeOver } from "./ui/TypeOver";
import type { Room } from "./ui/room";
import { useRoom } from "./ui/room";
import { useKeptFocus } from "./ui/useKeptFocus";
import { Bar } from "./bar/Bar";
import { PathTabs } from "./bar/PathTabs";
import { SkipLinks } from "./bar/SkipLinks";
import { Announcer } from "./review/Announcer";
import { FindingsButton } from "./review/FindingsButton";
import { Margin } from "./review/Margin";
import { Section } from "./section/Section";
import { stringOf } from "./design/stringOf";
import { BENCHES, isStep } from "./steps/registry";
import { tabOf } from "./steps/tabs";

const TRACKS_SHARE = 0.47;
const STACKED_PX = 460;
const EMPTY_BASIS = { total_md_ft: 10_000, axis_md_ft: [0, 10_000], axis_tvd_ft: [0, 10_000] };
const LIT_MS = 1600;
const NEAR_TRIES = 10;
const LIGHT_TRIES = 100;
const LIGHT_RETRY_MS = 40;

export function Workbench() {
  const { designId } = useParams();
  const id = Number(designId);
  const named = Number.isInteger(id) && id > 0;
  const { data, error } = useQuery({
    queryKey: ["design", id],
    queryFn: () => getDesign(id),
    enabled: named,
    gcTime: 0,
    staleTime: Infinity,
    retry: 1,
  });
  if (!named) return <Message text={`There is no design "${designId}".`} />;
  if (error) return <Message text={`This design cannot be opened: ${error.message}`} />;
  if (!data) return <Message text="Opening the design…" />;
  return <Open key={id} view={data} />;
}

/** An address that leads nowhere, and the way home. */
export function Message({ text, to = "/", toText = "All wells" }: { text: string; to?: string; toText?: string }) {
  return (
    <main className="grid h-full place-items-center text-mute">
      <p>
        {text}{" "}
        <Link className="text-petrol underline" to={to}>
          {toText}
        </Link>
      </p>
    </main>
  );
}

/** The session lives as long as the design is open. */
function Open({ view }: { view: DesignView }) {
  const [session] = useState(
    () => new Session(view.item.id, view.item.well_id, view.document, view.item.revision, view.item.author, view.log),
  );
  useEffect(() => {
    session.open();
    return () => {
      session.close();
    };
  }, [session]);
  const { step = "depths", designId } = useParams();
  if (!isStep(step))
    return <Message text={`A design has no step called "${step}".`} to={`/designs/${designId}/depths`} toText="Its setting depths" />;
  return <Desk session={session} designName={view.item.name} step={step} />;
}

function Desk({ session, designName, step }: { session: Session; designName: string; step: Step }) {
  const navigate = useNavigate();
  const { designId } = useParams();
  const [wanted, select] = useString(1);
  const [asked, setAsked] = useState<Bench["asked"]>(null);
  const [place, setPlace] = useState("");
  const [typing, setTyping] = useState<TypeOverRequest | null>(null);
  const [drawer, setDrawer] = useState(false);
  const room = useRoom();
  const strings = useSyncExternalStore(session.subscribe, () => session.snapshot().evaluation?.strings.length ?? 1);
  const selected = Math.max(0, Math.min(wanted, strings - 1));

  const bench = useMemo<Bench>(
    () => ({
      session,
      selected,
      select,
      asked,
      ask: (key, title) => {
        setAsked(key === "" ? null : { key, title });
        setDrawer(true);
      },
      typeOver: setTyping,
      goTo: (to, at) => {
        const index = stringOf(session, at) ?? selected;
        const tab = isStep(to) ? tabOf(to, at) : null;
        const query = new URLSearchParams({ string: String(index + 1), ...(tab === null ? {} : { tab }) });
        setPlace("");
        setDrawer(false);
        void navigate(`/designs/${designId}/${to}?${query}`);
        // the place is lit once its step is on the screen
        setTimeout(() => {
          setPlace(at);
        }, 0);
      },
    }),
    [session, selected, select, asked, navigate, designId],
  );

  useLight(place);
  useKeptFocus();
  useEffect(() => {
    if (room !== "drawer" || !drawer) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Escape") setDrawer(false);
    };
    window.addEventListener("keydown", onKey);
    return () => {
      window.removeEventListener("keydown", onKey);
    };
  }, [room, drawer]);
  useTitle(step, session);

  return (
    <BenchContext value={bench}>
      <div className="flex h-full flex-col stacked:overflow-y-auto" data-room={room}>
        <SkipLinks />
        <PrintHeading designName={designName} step={step} />
        <Bar designName={designName} />
        <PathTabs>
          {room !== "wide" && (
            <FindingsButton
              open={room === "drawer" ? drawer : undefined}
              onClick={() => {
                setDrawer(!drawer);
                // the drawer is on the screen with the next frame; stacked, the margin stands below
                requestAnimationFrame(() => document.getElementById("findings")?.focus());
              }}
            />
          )}
        </PathTabs>
        <div className="relative flex min-h-0 flex-1 stacked:flex-none stacked:flex-col">
          <Middle step={step} place={place} room={room} />
          {(room !== "drawer" || drawer) && <Margin />}
        </div>
      </div>
      <Announcer />
      {typing && (
        <TypeOver
          key={`${typing.label} ${typing.box.top}`}
          request={typing}
          close={() => {
            setTyping(null);
          }}
        />
      )}
    </BenchContext>
  );
}

/** The page's title: step and well. */
function useTitle(step: Step, session: Session) {
  const reference = useReference();
  const name = useSyncExternalStore(session.subscribe, () => session.snapshot().document.name);
  useEffect(() => {
    document.title = `${reference.title(step)} · ${name} · Knollstack`;
    return () => {
      document.title = "Knollstack";
    };
  }, [reference, step, name]);
}

/** What a printed view is of. */
function PrintHeading({ designName, step }: { designName: string; step: Step }) {
  const reference = useReference();
  const name = useAt("/name") as string;
  const revision = useSnapshot("revision");
  return (
    <p className="hidden pb-1 text-[15px] print:block">
      <strong>{name}</strong> · {designName} · revision {revision} · {reference.title(step)} · {new Date().toLocaleString("en-GB")}
    </p>
  );
}

function Middle({ step, place, room }: { step: Step; place: string; room: Room }) {
  const Bench = BENCHES[step];
  const basis = useEvaluated((e) => e.basis);
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const node = box.current!;
    const observer = new ResizeObserver(() => {
      setSize({ width: node.clientWidth, height: node.clientHeight });
    });
    observer.observe(node);
    return () => {
      observer.disconnect();
    };
  }, []);
  const { axis: kind } = usePreferences();
  const axis = useMemo(() => depthAxis(kind, basis ?? EMPTY_BASIS), [kind, basis]);
  const heightPx = room === "stacked" ? STACKED_PX : size.height - STRIP_PX;
  const { scale, handlers, zoomedIn, fit } = useDepthView(box, axis, heightPx);
  const tracksPx = Math.max(280, Math.floor((size.width - 300) * (room === "stacked" ? 1 : TRACKS_SHARE)));
  return (
    <main
      ref={box}
      tabIndex={-1}
      data-drawn={basis !== undefined && size.width > 0 ? "" : undefined}
      className="relative flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden outline-none stacked:flex-none"
      {...handlers}
    >
      {basis !== undefined && size.width > 0 && (
        <>
          <div className="flex min-h-0 flex-1 stacked:flex-wrap">
            <Section scale={scale} />
            <Bench scale={scale} tracksPx={tracksPx} place={place} />
          </div>
          <ReadingStrip step={step} />
          <AxisButtons zoomedIn={zoomedIn} fit={fit} />
        </>
      )}
      {basis === undefined && <FirstEvaluation />}
    </main>
  );
}

function FirstEvaluation() {
  const faults = useSnapshot("faults");
  return <p className="m-auto text-mute">{faults.length ? "This document cannot be evaluated: see the margin." : "Evaluating…"}</p>;
}

/** The field of a place, or the nearest part of it that is on the screen. */
function elementAt(place: string): HTMLElement | null {
  const parts = place.split("/");
  for (let n = parts.length; n > 1; n--) {
    const prefix = CSS.escape(parts.slice(0, n).join("/"));
    const found =
      document.querySelector<HTMLElement>(`[data-place="${prefix}"]`) ?? document.querySelector<HTMLElement>(`[data-place^="${prefix}/"]`);
    if (found) return found;
  }
  return null;
}

/** Light up and focus the field of a place; its step may still be on the way to the screen. */
function useLight(place: string): void {
  useEffect(() => {
    if (place === "") return;
    let tries = 0;
    let lit: HTMLElement | null = null;
    let timer: ReturnType<typeof setTimeout>;
    let unlit: ReturnType<typeof setTimeout>;
    const light = (found: HTMLElement) => {
      clearTimeout(unlit);
      lit?.classList.remove("lit");
      lit = found;
      lit.scrollIntoView({ block: "nearest" });
      lit.focus({ preventScroll: true });
      lit.classList.add("lit");
      unlit = setTimeout(() => lit?.classList.remove("lit"), LIT_MS);
    };
    const look = () => {
      const exact = document.querySelector<HTMLElement>(`[data-place="${CSS.escape(place)}"]`);
      // a long page may take a while to come: the part that is nearest is lit meanwhile, unless a hand has gone elsewhere
      const free = lit === null || document.activeElement === lit || document.activeElement === document.body;
      const near = exact === null && tries === NEAR_TRIES ? elementAt(place) : null;
      if (exact !== null && free) light(exact);
      else if (near !== null) light(near);
      if (exact !== null || !free || tries >= LIGHT_TRIES) return;
      // before the first evaluation there is no bench to look in
      if (document.querySelector("main[data-drawn]") !== null) tries++;
      timer = setTimeout(look, LIGHT_RETRY_MS);
    };
    timer = setTimeout(look, 0);
    return () => {
      clearTimeout(timer);
      clearTimeout(unlit);
      lit?.classList.remove("lit");
    };
  }, [place]);
}
