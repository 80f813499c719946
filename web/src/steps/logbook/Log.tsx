// The log: newest first, searched and filtered; an entry by form, a block pasted, a file; each corrected by another, never changed.
import { Braces, ClipboardPaste, Plus, Rows3, Table2 } from "lucide-react";
import { Suspense, lazy, useMemo, useState } from "react";
import { saidOf } from "../../design/api";
import { useBench } from "../../design/context";
import { inForce } from "../../design/drilled";
import { useReference } from "../../design/reference";
import type { EntryKind, LogEntry, NewEntry } from "../../design/types";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { Pick } from "../runsheet/Sheet";
import { EntryForm } from "./EntryForm";
import { EntryTable } from "./EntryTable";
import type { Values } from "./fields";
import { entryWords, kindOf, unwritten } from "./fields";
import { LogRow } from "./LogRow";
import { useFreshLog, useLog, useSizes, useWriteLog } from "./useLog";

const ImportDialog = lazy(() => import("../../imports/ImportDialog").then((m) => ({ default: m.ImportDialog })));
const LINK = "inline-flex items-center gap-1.5 rounded border border-rule px-2 py-0.5 text-[12px] leading-5 hover:border-petrol";

interface Writing {
  kind: EntryKind;
  values: Values;
}

export function Log({ place }: { place: string }) {
  const { session } = useBench();
  const reference = useReference();
  const units = useUnits();
  const log = useLog();
  useFreshLog();
  const sizeOf = useSizes();
  const write = useWriteLog();
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState("");
  const [writing, setWriting] = useState<Writing | null>(null);
  const [table, setTable] = useState(false);
  const [importing, setImporting] = useState<{ pasted: string | null } | null>(null);
  const [said, setSaid] = useState("");
  const counts = useMemo(() => new Set(inForce(log).map((e) => e.number)), [log]);
  const rows = useMemo(() => {
    const words = search.trim().toLowerCase();
    const text = (e: LogEntry) =>
      `${e.number} ${e.at} ${kindOf(reference, e.kind).title} ${entryWords(e, reference, units, sizeOf)} ${e.author} ${e.text}`.toLowerCase();
    return [...log].reverse().filter((e) => (kind === "" || e.kind === kind) && (words === "" || text(e).includes(words)));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- sizeOf follows the document
  }, [log, search, kind, reference, units.key]);
  const kinds = [...new Set(log.map((e) => e.kind))];
  const take = (taken: Record<string, unknown>[]) => {
    write(taken as unknown as NewEntry[]).then(
      () => setSaid(""),
      (error: unknown) => setSaid(saidOf(error, (path) => reference.tableWords(path.replace("/entries/", "/rows/"), "/log"))),
    );
  };
  return (
    <div
      className="flex h-full min-h-0 flex-col stacked:h-[80vh]"
      onPaste={(event) => {
        if (event.target instanceof HTMLElement && event.target.closest("input, textarea") !== null) return;
        setImporting({ pasted: event.clipboardData.getData("text") });
      }}
    >
      <div className="mb-1.5 flex shrink-0 flex-wrap items-center gap-1.5 text-[12.5px]" role="search" aria-label="Entries of the log">
        <Button kind="act" onClick={() => setWriting({ kind: "depth", values: {} })}>
          <Plus size={13} aria-hidden /> New entry
        </Button>
        <Button onClick={() => setTable(true)}>
          <Rows3 size={13} aria-hidden /> Several
        </Button>
        <input
          type="search"
          aria-label="Search the log"
          placeholder="Search"
          className="field w-20"
          value={search}
          onChange={(event) => {
            setSearch(event.target.value);
          }}
        />
        <Pick
          label="Kind of entry"
          value={kind}
          options={[["", "All entries"], ...kinds.map((k) => [k, kindOf(reference, k).title] as const)]}
          onPick={setKind}
        />
        <Button title="Or paste a block over the table (Ctrl V)" onClick={() => setImporting({ pasted: null })}>
          <ClipboardPaste size={13} aria-hidden /> Import
        </Button>
        <a className={LINK} href={`/api/designs/${session.id}/log.csv?${units.query}`}>
          <Table2 size={13} aria-hidden /> CSV
        </a>
        <a className={LINK} href={`/api/designs/${session.id}/log.json`}>
          <Braces size={13} aria-hidden /> JSON
        </a>
        <span className="ml-auto text-mute" role="status">
          {rows.length === log.length ? `${log.length} entries` : `${rows.length} of ${log.length} entries`}
        </span>
      </div>
      {said !== "" && (
        <p role="alert" className="mb-1 text-[12.5px] text-brick">
          Nothing was written. {said}.
        </p>
      )}
      {writing && (
        <div className="mb-2 shrink-0 border border-rule bg-sheet p-2">
          <EntryForm
            key={JSON.stringify(writing)}
            kind={writing.kind}
            initial={writing.values}
            anyKind={writing.values.corrects === undefined}
            action={writing.values.corrects === undefined ? "Write entry" : `Write the correction of ${writing.values.corrects as number}`}
            onDone={() => setWriting(null)}
            onCancel={() => setWriting(null)}
          />
        </div>
      )}
      {table && (
        <div className="mb-2 shrink-0 border border-rule bg-sheet p-2">
          <EntryTable onDone={() => setTable(false)} onCancel={() => setTable(false)} />
        </div>
      )}
      <div className="min-h-0 flex-1 overflow-auto border-t border-rule" role="region" aria-label="Log" tabIndex={0}>
        {log.length === 0 && (
          <Empty>Nothing is logged yet. Entries come by form here, by signing steps of the run sheet, by a pasted block or a file.</Empty>
        )}
        <ol>
          {rows.map((entry) => (
            <LogRow
              key={entry.number}
              entry={entry}
              counts={counts.has(entry.number)}
              lit={place === `/log/${entry.number}`}
              onCorrect={() => setWriting({ kind: entry.kind, values: { ...unwritten(entry), corrects: entry.number } })}
            />
          ))}
        </ol>
      </div>
      <Suspense>
        {importing && (
          <ImportDialog
            target="log"
            title="Log"
            path="/log"
            pasted={importing.pasted}
            close={() => setImporting(null)}
            take={{ words: "Write these entries", rows: take }}
          />
        )}
      </Suspense>
    </div>
  );
}
