// A newer revision was saved elsewhere: to be shown, or in conflict with edits made here, which a draft keeps meanwhile.
import { useState } from "react";
import { useBench, useSnapshot } from "../design/context";
import type { Newest } from "../design/session";
import { MergeDialog } from "./MergeDialog";

export function NewestBanner({ newest }: { newest: Newest }) {
  const { session } = useBench();
  const edited = useSnapshot("save") !== "saved";
  const [merging, setMerging] = useState(false);
  const by = newest.newest_author === "" ? "elsewhere" : `by ${newest.newest_author}`;
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 bg-gold px-3 py-1.5 text-[13px] text-[#16211e]">
      <span>
        {edited && newest.draft_id !== null
          ? `Revision ${newest.newest_revision} was saved ${by} while you worked. Both versions are kept: yours as a draft.`
          : `Revision ${newest.newest_revision} was saved ${by}.`}
      </span>
      {edited && (
        <button
          type="button"
          className="font-semibold underline"
          onClick={() => {
            setMerging(true);
          }}
        >
          Compare and merge…
        </button>
      )}
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
        {!edited ? "Show it" : newest.draft_id !== null ? "Show theirs (mine stays a draft)" : "Show theirs (mine stays in undo here)"}
      </button>
      {merging && (
        <MergeDialog
          newest={newest}
          close={() => {
            setMerging(false);
          }}
        />
      )}
    </div>
  );
}
