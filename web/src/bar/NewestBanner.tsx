// A newer revision was saved elsewhere: to be shown, or in conflict with edits made here, with what differs in words.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { tellDifferences } from "../design/api";
import { useBench, useSnapshot } from "../design/context";
import type { Newest } from "../design/session";
import { useUnits } from "../ui/units";

const MOST_TOLD = 12;

export function NewestBanner({ newest }: { newest: Newest }) {
  const { session } = useBench();
  const edited = useSnapshot("save") === "conflict";
  const [told, setTold] = useState(false);
  return (
    <div role="alert" className="bg-gold px-3 py-1.5 text-[13px] text-[#16211e]">
      <p className="flex flex-wrap items-center gap-3">
        <span>
          Revision {newest.newest_revision} was saved elsewhere
          {edited ? " while you worked. Both versions are kept." : "."}
        </span>
        {edited && (
          <button
            type="button"
            className="underline"
            onClick={() => {
              session.keepMine();
            }}
          >
            Save mine as the next revision
          </button>
        )}
        <button
          type="button"
          className="underline"
          onClick={() => {
            session.takeTheirs();
          }}
        >
          {edited ? "Show theirs (mine stays in undo)" : "Show it"}
        </button>
        <button
          type="button"
          className="underline"
          aria-expanded={told}
          onClick={() => {
            setTold(!told);
          }}
        >
          What differs
        </button>
      </p>
      {told && <Differences newest={newest} />}
    </div>
  );
}

function Differences({ newest }: { newest: Newest }) {
  const document = useSnapshot("document");
  const units = useUnits();
  const { data, isError } = useQuery({
    queryKey: ["differences", newest.newest_revision, document],
    queryFn: () => tellDifferences(newest.newest_document, document),
    retry: false,
    gcTime: 0,
  });
  if (isError) return <p>Mine cannot be read as it stands: mend its faults to see what differs.</p>;
  if (data === undefined) return <p>Comparing…</p>;
  return (
    <ul className="mt-1 max-h-40 overflow-auto">
      {data.length === 0 && <li>Nothing.</li>}
      {data.slice(0, MOST_TOLD).map((change) => (
        <li key={change.place}>
          {change.subject}: theirs {units.words(change.before)}, mine {units.words(change.after)}
        </li>
      ))}
      {data.length > MOST_TOLD && <li>and {data.length - MOST_TOLD} more</li>}
    </ul>
  );
}
