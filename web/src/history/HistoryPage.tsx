// The history of a design: every saved revision with what changed in words; any can be looked at, and brought back as a
// new revision.
import { useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import * as api from "../design/api";
import type { Difference, RevisionList } from "../design/types";
import { Button } from "../ui/Button";
import { useUnits } from "../ui/units";
import { SavePicture } from "../ui/SavePicture";
import { useRoom } from "../ui/room";
import { PageBar } from "./PageBar";
import { StaticSection } from "./StaticSection";

type RevisionItem = RevisionList["revisions"][number];
const MOST_CHANGES = 6;

export function HistoryPage() {
  const id = Number(useParams().designId);
  const room = useRoom();
  const [chosen, setChosen] = useState<number | null>(null);
  const { data: view } = useQuery({ queryKey: ["design", id, "head"], queryFn: () => api.getDesign(id), gcTime: 0 });
  const { data, error, fetchNextPage, hasNextPage } = useInfiniteQuery({
    queryKey: ["revisions", id],
    queryFn: ({ pageParam }) => api.listRevisions(id, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.more ? last.revisions[last.revisions.length - 1]!.number : undefined),
    gcTime: 0,
  });
  const revisions = data?.pages.flatMap((page) => page.revisions) ?? [];
  const number = chosen ?? revisions[0]?.number ?? null;
  return (
    <div className="flex h-full flex-col" data-room={room}>
      <PageBar back={`/designs/${id}/depths`} title={view?.document.name ?? ""}>
        {view?.item.name} · history
      </PageBar>
      <main className="flex min-h-0 flex-1 stacked:flex-col stacked:overflow-y-auto">
        <div className="min-w-0 flex-1 overflow-y-auto px-4 py-3 stacked:flex-none" tabIndex={0} role="region" aria-label="Revisions">
          {error && <p className="text-brick">The history cannot be read: {error.message}</p>}
          <table className="w-full border-collapse" aria-label="Revisions">
            <thead>
              <tr className="text-left text-[12px] text-mute">
                <th className="w-12 border-b border-rule text-right font-normal">No.</th>
                <th className="w-52 border-b stacked:w-28 border-rule px-3 font-normal">Saved</th>
                <th className="w-32 border-b border-rule font-normal">By</th>
                <th className="border-b border-rule font-normal">What changed</th>
                <th className="w-20 border-b border-rule">
                  <span className="sr-only">show</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {revisions.map((revision) => (
                <RevisionRow key={revision.number} revision={revision} shown={revision.number === number} show={setChosen} />
              ))}
            </tbody>
          </table>
          {hasNextPage && (
            <Button className="mt-2" onClick={() => void fetchNextPage()}>
              Older revisions
            </Button>
          )}
        </div>
        {number !== null && view && <Shown id={id} wellId={view.item.well_id} number={number} newest={revisions[0]!.number} />}
      </main>
    </div>
  );
}

function RevisionRow({ revision, shown, show }: { revision: RevisionItem; shown: boolean; show: (number: number) => void }) {
  const [all, setAll] = useState(false);
  const changes = all ? revision.changes : revision.changes.slice(0, MOST_CHANGES);
  const more = revision.changes.length - changes.length;
  return (
    <tr className={`border-b border-rule/60 align-top ${shown ? "bg-petrol/8" : ""}`} data-revision-row={revision.number}>
      <td className="py-1 text-right font-semibold">{revision.number}</td>
      <td className="px-3 py-1 text-mute">
        {new Date(revision.saved_at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "medium" })}
      </td>
      <td className="max-w-32 truncate py-1 pr-3 text-mute" title={revision.author}>
        {revision.author}
      </td>
      <td className="py-1">
        {revision.signatures.map((words) => (
          <span key={words} className="block font-semibold text-petrol">
            {words}
          </span>
        ))}
        {revision.note && <span className="block text-mute">{revision.note}</span>}
        {changes.map((change) => (
          <ChangeLine key={change.place + change.subject} change={change} />
        ))}
        {more > 0 && (
          <button
            type="button"
            className="text-petrol hover:underline"
            onClick={() => {
              setAll(true);
            }}
          >
            and {more} more
          </button>
        )}
        {revision.unreadable !== "" && <span className="block text-brick">This revision cannot be read: {revision.unreadable}</span>}
        {revision.changes.length === 0 && revision.note === "" && revision.unreadable === "" && (
          <span className="text-mute">no change in words</span>
        )}
      </td>
      <td className="py-1 text-right">
        <Button
          aria-pressed={shown}
          disabled={revision.unreadable !== ""}
          onClick={() => {
            show(revision.number);
          }}
        >
          {shown ? "Shown" : "Show"}
          <span className="sr-only"> revision {revision.number}</span>
        </Button>
      </td>
    </tr>
  );
}

export function ChangeLine({ change }: { change: Difference }) {
  const units = useUnits();
  return (
    <span className="block">
      {change.subject} <span className="text-mute">{units.words(change.before)} →</span> {units.words(change.after)}
    </span>
  );
}

/** One revision as it was, and the way to bring it back. */
function Shown({ id, wellId, number, newest }: { id: number; wellId: number; number: number; newest: number }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [refusal, setRefusal] = useState("");
  const { data: document } = useQuery({
    queryKey: ["revision", id, number],
    queryFn: () => api.getRevision(id, number),
    staleTime: Infinity,
  });
  const { data: evaluation } = useQuery({
    queryKey: ["revision", id, number, "evaluation"],
    queryFn: () => api.evaluate(document!),
    enabled: document !== undefined,
    staleTime: Infinity,
  });
  const restore = async () => {
    try {
      await api.saveDesign({ id, wellId }, newest, document!, `revision ${number} brought back`);
      await client.invalidateQueries({ queryKey: ["designs"] });
      void navigate(`/designs/${id}/depths`);
    } catch (error) {
      setRefusal(error instanceof api.ProblemError ? error.problem.detail : "The server is not reached.");
    }
  };
  return (
    <aside
      data-picture
      aria-label={`Revision ${number}`}
      className="flex w-[316px] shrink-0 flex-col border-l border-rule bg-sheet stacked:h-[30rem] stacked:border-t stacked:border-l-0"
    >
      <div className="px-3 pt-2">
        <h2 className="text-[14px] font-semibold">
          Revision {number} <SavePicture title={`Section, revision ${number}`} />
        </h2>
        {number !== newest && (
          <Button kind="act" className="mt-1" disabled={document === undefined} onClick={() => void restore()}>
            Bring it back as revision {newest + 1}
          </Button>
        )}
        {number === newest && <p className="text-[12px] text-mute">The newest: what the workbench shows.</p>}
        {refusal && (
          <p role="alert" className="mt-1 text-brick">
            {refusal}
          </p>
        )}
      </div>
      <div className="flex min-h-0 flex-1 px-2">
        {evaluation && <StaticSection evaluation={evaluation} label={`Section of the well at revision ${number}`} />}
      </div>
    </aside>
  );
}
