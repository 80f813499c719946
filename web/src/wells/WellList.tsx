// Every well: open one, start an empty one, or bring in a well file.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { FilePlus, Moon, Sun, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import * as api from "../design/api";
import type { Fault, Saved } from "../design/types";
import { NameForm, PersonMenu } from "../bar/PersonMenu";
import { usePeople } from "../people";
import { usePersonName } from "../design/person";
import { usePreferences } from "../preferences";
import { useReference } from "../design/reference";
import { Button } from "../ui/Button";
import { FilePick } from "../ui/FilePick";
import { Bin } from "./Bin";
import { DesignTable } from "./DesignTable";

interface Refusal {
  title: string;
  faults: Fault[];
  detail: string;
}

export function WellList() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const { dark, prefer } = usePreferences();
  const name = usePersonName();
  const people = usePeople();
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const { data: designs, isError } = useQuery({ queryKey: ["designs"], queryFn: api.listDesigns, refetchOnMount: "always" });

  const open = async (made: Promise<Saved>, what: string) => {
    try {
      const saved = await made;
      setRefusal(null);
      void navigate(`/designs/${saved.design_id}/ground`);
    } catch (error) {
      const problem = error instanceof api.ProblemError ? error.problem : null;
      setRefusal({
        title: `${what} was not brought in. Nothing was changed.`,
        faults: problem?.faults ?? [],
        detail: problem?.detail ?? "The server is not reached.",
      });
    }
  };

  /** Do something to the list, and say what was not done where it was refused. */
  const change = async (done: Promise<unknown>, refused: string) => {
    try {
      await done;
      await client.invalidateQueries({ queryKey: ["designs"] });
    } catch (error) {
      const detail = error instanceof api.ProblemError ? error.problem.detail : "The server is not reached.";
      setRefusal({ title: refused, faults: [], detail });
    }
  };

  const remove = async (wellId: number) => {
    await change(api.deleteWell(wellId), "The well was not deleted.");
    await client.invalidateQueries({ queryKey: ["bin"] });
  };

  return (
    <div className="flex h-full flex-col">
      <header className="flex h-10 shrink-0 items-center gap-3 bg-bar px-4 text-bar-ink">
        <span className="text-[15px] font-semibold">Knollstack</span>
        <span className="truncate text-[12.5px] text-bar-ink/75">casing programs from the ground to the BOPs</span>
        <span className="ml-auto" />
        {(people.accounts || name !== "") && <PersonMenu />}
        <Button
          kind="bar"
          aria-label={dark ? "Light" : "Dark"}
          onClick={() => {
            prefer({ dark: !dark });
          }}
        >
          {dark ? <Sun size={14} aria-hidden /> : <Moon size={14} aria-hidden />}
        </Button>
      </header>
      <main className="mx-auto flex min-h-0 w-full max-w-6xl flex-1 flex-col px-6 pt-5 pb-3">
        <div className="mb-3 flex flex-wrap items-center gap-2">
          <h1 className="mr-auto text-[18px] font-semibold">Wells</h1>
          <Link to="/formulas" className="mr-2 text-petrol hover:underline">
            Formulas
          </Link>
          <Bin />
          <Button onClick={() => void open(api.createEmptyWell(), "The empty well")}>
            <FilePlus size={14} aria-hidden /> New well
          </Button>
          <Button onClick={() => file.current?.click()}>
            <Upload size={14} aria-hidden /> Import a well file
          </Button>
          <FilePick
            ref={file}
            label="Well file"
            accept=".json,application/json"
            onPick={(chosen) => void open(api.importWell(chosen), chosen.name)}
          />
        </div>
        {!people.accounts && name === "" && <AskName />}
        {refusal && <RefusalNote refusal={refusal} />}
        {isError && <p className="text-brick">The server is not reached.</p>}
        {designs?.length === 0 && (
          <FirstVisit
            onEmpty={() => void open(api.createEmptyWell(), "The empty well")}
            onImport={() => file.current?.click()}
            onDemo={() => void change(api.createDemoWells(), "The demo wells were not made.")}
          />
        )}
        {designs && designs.length > 0 && (
          <DesignTable
            designs={designs}
            onDelete={(well) => void remove(well)}
            onCopy={(well) => void change(api.copyWell(well), "The well was not copied.")}
          />
        )}
        <p className="mt-3 max-w-prose shrink-0 text-[12px] text-mute">
          Knollstack plans work that can hurt people. Its results need checking by a competent and, where required, licensed engineer, and
          local rules prevail.
        </p>
      </main>
    </div>
  );
}

/** Asked once: kept in this browser, changed later in the bar. */
function AskName() {
  return (
    <section aria-label="Your name" className="mb-3 border-l-[3px] border-petrol bg-sheet px-3 py-1.5">
      <NameForm inline done={() => undefined} />
    </section>
  );
}

/** Nothing here yet: three ways to begin. */
function FirstVisit({ onEmpty, onImport, onDemo }: { onEmpty: () => void; onImport: () => void; onDemo: () => void }) {
  const ways = [
    {
      title: "Start an empty well",
      text: "Type or paste its ground; a program is proposed as soon as pore and fracture are known.",
      act: onEmpty,
    },
    { title: "Import a well file", text: "A .well.json file written here, by hand, or by another tool.", act: onImport },
    {
      title: "Look at the demo wells",
      text: "Made-up wells, nearly right, with something to find in them. Change them as you like.",
      act: onDemo,
    },
  ];
  return (
    <section aria-label="Begin" className="border-y border-rule py-6">
      <p className="mb-3 text-mute">No well yet. Three ways to begin:</p>
      <div className="grid grid-cols-3 gap-4">
        {ways.map((way) => (
          <button
            key={way.title}
            type="button"
            className="flex flex-col items-start rounded border border-rule bg-sheet p-3 text-left hover:border-petrol"
            onClick={way.act}
          >
            <span className="block text-[14px] font-semibold text-petrol">{way.title}</span>
            <span className="mt-1 block text-mute">{way.text}</span>
          </button>
        ))}
      </div>
    </section>
  );
}

function RefusalNote({ refusal }: { refusal: Refusal }) {
  const reference = useReference();
  return (
    <div role="alert" className="mb-4 border-l-[3px] border-brick bg-sheet px-3 py-2">
      <p className="font-semibold text-brick">{refusal.title}</p>
      {refusal.faults.length === 0 && <p>{refusal.detail}</p>}
      <ul className="max-h-48 overflow-auto">
        {refusal.faults.map((fault) => (
          <li key={fault.path}>
            <span className="font-semibold">{reference.words(fault.path)}</span>: {fault.value}; expected {fault.expected}.
          </li>
        ))}
      </ul>
    </div>
  );
}
