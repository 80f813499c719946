// The bar: which well and design, whether it is saved, units, undo, sheet and file.
import { GoneBanner } from "./GoneBanner";
import { KeptDrafts } from "./KeptDrafts";
import { NewestBanner } from "./NewestBanner";
import { PersonMenu } from "./PersonMenu";
import { Download, FileText, Moon, Redo2, Sun, Undo2 } from "lucide-react";
import { Link } from "react-router";
import { useAt, useBench, useSnapshot } from "../design/context";
import type { SaveState } from "../design/session";
import { Button } from "../ui/Button";
import { Keys } from "../keys/Keys";
import { usePreferences } from "../preferences";
import { useUnits } from "../ui/units";
import { DesignMenu } from "./DesignMenu";
import { UnitsMenu } from "./UnitsMenu";
import { ViewSwitch } from "./ViewSwitch";

const SAVE_WORDS: Record<SaveState, string> = {
  saved: "saved",
  unsaved: "not saved yet",
  saving: "saving",
  faulty: "not saved: mend the faults first",
  offline: "server not reached; edits are kept here",
  full: "not saved: the server's disk is full; edits are kept here",
  out: "signed out; edits are kept here",
  viewer: "not saved: a viewer tries things out",
  conflict: "changed elsewhere; yours is kept as a draft",
  gone: "deleted elsewhere; edits are kept here",
};

export function Bar({ designName }: { designName: string }) {
  const { session } = useBench();
  const name = useAt("/name") as string;
  const revision = useSnapshot("revision");
  const save = useSnapshot("save");
  const canUndo = useSnapshot("canUndo");
  const canRedo = useSnapshot("canRedo");
  const newest = useSnapshot("newest");
  const unkept = useSnapshot("unkept");
  const { dark, prefer } = usePreferences();
  const units = useUnits();
  return (
    <header className="no-print shrink-0 bg-bar text-bar-ink">
      <div className="flex min-h-10 flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1">
        <Link to="/" className="text-[12.5px] text-bar-ink/75 hover:text-bar-ink" title="All wells">
          Wells
        </Link>
        <h1 className="max-w-56 shrink-0 truncate text-[14px] font-semibold" title={name}>
          {name}
        </h1>
        <DesignMenu designName={designName} />
        <span role="status" className="truncate text-[12.5px] text-bar-ink/75" data-save={save} data-revision={revision}>
          revision {revision} · {SAVE_WORDS[save]}
        </span>
        <ViewSwitch />
        <div className="ml-auto flex flex-wrap items-center justify-end gap-1.5">
          <UnitsMenu />
          <Button
            kind="bar"
            disabled={!canUndo}
            title="Undo (Ctrl Z)"
            onClick={() => {
              session.undo();
            }}
          >
            <Undo2 size={13} aria-hidden /> Undo
          </Button>
          <Button
            kind="bar"
            disabled={!canRedo}
            title="Redo (Ctrl Shift Z)"
            onClick={() => {
              session.redo();
            }}
          >
            <Redo2 size={13} aria-hidden /> Redo
          </Button>
          <BarLink href={`/api/designs/${session.id}/sheet?${units.query}`} ready={save === "saved"}>
            <FileText size={13} aria-hidden /> Program sheet
          </BarLink>
          <BarLink href={`/api/designs/${session.id}/file`} ready={save === "saved"}>
            <Download size={13} aria-hidden /> Well file
          </BarLink>
          <Keys />
          <PersonMenu />
          <Button
            kind="bar"
            aria-label={dark ? "Light" : "Dark"}
            title={dark ? "Light" : "Dark"}
            onClick={() => {
              prefer({ dark: !dark });
            }}
          >
            {dark ? <Sun size={14} aria-hidden /> : <Moon size={14} aria-hidden />}
          </Button>
        </div>
      </div>
      {save === "gone" && <GoneBanner />}
      {newest && <NewestBanner newest={newest} />}
      {newest === null && save === "saved" && <KeptDrafts />}
      {unkept && save !== "saved" && (
        <p role="alert" className="bg-brick px-3 py-1 text-[13px] text-white">
          This browser has no room to keep what is not saved: leave the page open.
        </p>
      )}
    </header>
  );
}

/** A download of what is saved: waits until the last edit is. */
function BarLink({ href, ready, children }: { href: string; ready: boolean; children: React.ReactNode }) {
  return (
    <a
      href={ready ? href : undefined}
      aria-disabled={!ready}
      title={ready ? undefined : "waits until the last edit is saved"}
      className={`inline-flex items-center gap-1.5 rounded border border-white/25 px-2 py-0.5 text-[12px] leading-5 hover:border-white/60 ${ready ? "" : "opacity-50"}`}
    >
      {children}
    </a>
  );
}
