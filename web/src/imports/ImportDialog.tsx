// A table from a CSV or LAS file: choose the file, see what stands in it, say which column is which and in what unit,
// and only then change the document, as one step that can be undone.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import * as api from "../design/api";
import { useBench, useSnapshot } from "../design/context";
import type { Fault, Mapping, Preview, Target } from "../design/types";
import { useReference } from "../design/reference";
import { Button } from "../ui/Button";
import { FilePick } from "../ui/FilePick";
import { Modal } from "../ui/Modal";
import { useUnits } from "../ui/units";
import { MappingForm } from "./MappingForm";
import { bytesOf } from "./bytesOf";

interface ImportDialogProps {
  target: Target;
  title: string;
  path: string;
  /** A block that was pasted and not understood, in place of a file. */
  pasted: string | null;
  close: () => void;
  /** What is done with the rows in place of the table, and how that is called. */
  take?: { words: string; rows: (rows: Record<string, unknown>[]) => void };
}

interface Source {
  name: string;
  /** Bytes in base64. */
  data: string;
}

export function ImportDialog({ target, title, path, pasted, close, take }: ImportDialogProps) {
  const { session } = useBench();
  const document = useSnapshot("document");
  const units = useUnits();
  const file = useRef<HTMLInputElement>(null);
  const [source, setSource] = useState<Source | null>(null);
  useEffect(() => {
    if (pasted === null) return;
    void bytesOf(new Blob([pasted])).then((data) => {
      setSource({ name: "the pasted block", data });
    });
  }, [pasted]);
  const [edited, setEdited] = useState<{ of: Preview; mapping: Mapping } | null>(null);
  const [unopened, setUnopened] = useState<Refusal | null>(null);
  const { data: preview, error: unread } = useQuery({
    queryKey: ["preview", target, source],
    queryFn: () => api.previewTable(target, source!),
    enabled: source !== null,
    retry: false,
    staleTime: Infinity,
    gcTime: 0,
  });
  const mapping = preview === undefined ? null : edited?.of === preview ? edited.mapping : preview.mapping;
  const refusal = unopened ?? (unread === null ? null : refusalOf(unread));
  const open = async (chosen: File) => {
    setUnopened(null);
    try {
      setSource({ name: chosen.name, data: await bytesOf(chosen) });
    } catch (error) {
      setUnopened(refusalOf(error));
    }
  };
  // what the file gives under the mapping as it stands: shown before anything changes
  const { data: taken, error } = useQuery({
    queryKey: ["take", target, source, mapping, units.key],
    queryFn: () => api.takeTable(target, source!, mapping!, document.trajectory, units.choice),
    enabled: source !== null && mapping !== null,
    retry: false,
    gcTime: 0,
  });
  const faulty = error === null ? refusal : refusalOf(error);
  return (
    <Modal
      open
      onOpenChange={close}
      title={pasted === null ? `Import ${title.toLowerCase()} from a file` : `Which pasted column is which, ${title.toLowerCase()}`}
      width="w-[46rem]"
    >
      <div className="min-h-0 overflow-auto">
        {pasted !== null && (
          <p className="mb-2 text-mute">Not every heading or column of the block is understood. Nothing is filled in before you say so.</p>
        )}
        <p className="flex items-center gap-2">
          <Button onClick={() => file.current?.click()}>Choose a CSV, XLSX or LAS file</Button>
          <span className="truncate text-mute">{source?.name ?? "Nothing changes before you say so."}</span>
          <FilePick
            ref={file}
            label="Table file"
            accept=".csv,.txt,.tsv,.las,.xlsx,.xlsm,text/csv,text/plain"
            onPick={(chosen) => void open(chosen)}
          />
        </p>
        {preview && mapping && (
          <MappingForm
            preview={preview}
            mapping={mapping}
            onChange={(next) => setEdited({ of: preview, mapping: next })}
            profile={isProfile(target)}
          />
        )}
        {faulty && <RefusalNote refusal={faulty} table={path} />}
        {taken && !faulty && (
          <p className="mt-2 border-l-[3px] border-moss px-2" data-testid="taken">
            Gives {taken.rows.length.toLocaleString("en-US")} rows. {taken.notes.join("; ")}
          </p>
        )}
      </div>
      {preview && (
        <p className="mt-3 flex shrink-0 items-center gap-2 border-t border-rule pt-2">
          <Button
            kind="act"
            disabled={!taken || faulty !== null}
            onClick={() => {
              if (take) take.rows(taken!.rows);
              else session.edit([{ path, value: taken!.rows }]);
              close();
            }}
          >
            {take?.words ?? "Replace the table with these rows"}
          </Button>
          <Button onClick={close}>Leave it as it is</Button>
        </p>
      )}
    </Modal>
  );
}

export function isProfile(target: Target): boolean {
  return ["pore", "fracture", "stability", "overburden"].includes(target);
}

interface Refusal {
  detail: string;
  faults: Fault[];
}

function refusalOf(error: unknown): Refusal {
  const problem = error instanceof api.ProblemError ? error.problem : null;
  return { detail: problem?.detail ?? "The server is not reached.", faults: problem?.faults ?? [] };
}

function RefusalNote({ refusal, table }: { refusal: Refusal; table: string }) {
  const reference = useReference();
  return (
    <div role="alert" className="mt-2 border-l-[3px] border-brick bg-paper px-2 py-1.5 text-[12.5px]">
      <p className="font-semibold text-brick">Nothing was changed.</p>
      {refusal.faults.length === 0 && <p>{refusal.detail}</p>}
      <ul className="max-h-40 overflow-auto">
        {refusal.faults.map((fault) => (
          <li key={fault.path}>
            <span className="font-semibold">{reference.tableWords(fault.path, table)}</span>: {fault.value}; expected {fault.expected}.
          </li>
        ))}
      </ul>
    </div>
  );
}
