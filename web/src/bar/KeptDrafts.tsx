// Drafts kept beside the revisions: what came too late to be one. Each is taken up again, or dropped by hand.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "../design/api";
import { useBench, useSnapshot } from "../design/context";
import type { DraftItem } from "../design/types";
import { moment } from "../ui/moment";

export function KeptDrafts() {
  const { session } = useBench();
  const revision = useSnapshot("revision");
  const key = ["drafts", session.id, revision];
  const { data: drafts = [] } = useQuery({ queryKey: key, queryFn: () => api.listDrafts(session.id), gcTime: 0 });
  const [dropping, setDropping] = useState<number | null>(null);
  const client = useQueryClient();
  if (drafts.length === 0) return null;
  const takeUp = async (draft: DraftItem) => {
    const view = await api.getDraft(session.id, draft.id).catch(() => null);
    if (view !== null) session.takeUp(draft, view.document, "");
    else await client.invalidateQueries({ queryKey: key });
  };
  const drop = async (draft: DraftItem) => {
    await api.dropDraft(session.id, draft.id).catch(() => undefined);
    setDropping(null);
    await client.invalidateQueries({ queryKey: key });
  };
  return (
    <ul aria-label="Kept drafts" className="max-h-28 overflow-auto bg-gold/25 px-3 py-1 text-[12.5px]">
      {drafts.map((draft) => (
        <li key={draft.id} className="flex flex-wrap items-center gap-3 py-px">
          <span>
            Draft by {draft.author}, {moment(draft.saved_at)}, made on revision {draft.based_on}: kept beside the revisions.
          </span>
          <button type="button" className="underline" onClick={() => void takeUp(draft)}>
            Compare and merge
          </button>
          {dropping === draft.id ? (
            <>
              <button type="button" className="font-semibold underline" onClick={() => void drop(draft)}>
                Drop it for good
              </button>
              <button
                type="button"
                className="underline"
                onClick={() => {
                  setDropping(null);
                }}
              >
                Keep it
              </button>
            </>
          ) : (
            <button
              type="button"
              className="underline"
              onClick={() => {
                setDropping(draft.id);
              }}
            >
              Drop…
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
