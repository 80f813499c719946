// The whole sheet with its materials, asked for by the views that show it; and what changed in it since its last issue.
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { getRunSheet, getSheetChanges, issueSheet, listIssues } from "../../design/api";
import { useBench, useEvaluated, useWorkable } from "../../design/context";
import type { IssueItem, LineChange, SheetDetail } from "../../design/types";
import { identityOf } from "../../design/useRested";

/** Of the document as it stands; while something is dragged, of what was evaluated last. */
export function useSheet(): SheetDetail | undefined {
  const { session } = useBench();
  const document = useWorkable();
  const evaluated = useEvaluated((e) => e.runsheet);
  const of = session.dragging() && evaluated !== undefined ? evaluated : document;
  const { data } = useQuery({
    queryKey: ["run-sheet", of && identityOf(of)],
    queryFn: ({ signal }) => getRunSheet(session.workable()!, signal),
    enabled: document !== null,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    structuralSharing: false,
  });
  return data;
}

export function useIssues(): readonly IssueItem[] | undefined {
  const { session } = useBench();
  return useQuery({ queryKey: ["sheet-issues", session.id], queryFn: () => listIssues(session.id) }).data;
}

/** Steps that are not as they were issued, by key; none before there is an issue. */
export function useChanges(issues: readonly IssueItem[] | undefined): ReadonlyMap<string, LineChange> | undefined {
  const { session } = useBench();
  const document = useWorkable();
  const last = issues?.[0]?.issue ?? 0;
  const { data } = useQuery({
    queryKey: ["sheet-changes", session.id, last, document && identityOf(document)],
    queryFn: async ({ signal }) => new Map((await getSheetChanges(session.id, document!, signal)).map((c) => [c.key, c])),
    enabled: last > 0 && document !== null && !session.dragging(),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    structuralSharing: false,
  });
  return last > 0 ? data : undefined;
}

/** Issue the sheet of the saved revision. */
export function useIssue(): (note: string) => Promise<void> {
  const { session } = useBench();
  const queries = useQueryClient();
  return async (note) => {
    const issues = await issueSheet(session.id, session.snapshot().revision, note);
    queries.setQueryData(["sheet-issues", session.id], issues);
  };
}
