// Rows of a list that are as logged: asked for once for all tables of a document.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { getFactTables } from "../../design/api";
import { useFact, useWorked } from "../../design/context";
import type { FactRow } from "../../design/types";
import { identityOf } from "../../design/useRested";
import type { Row } from "./columns";

const NONE: readonly Row[] = [];

/** The fact at a list with its rows; null where the plan's rows are in force. */
export function useFactRows(path: string): { fact: FactRow; rows: readonly Row[] } | null {
  const fact = useFact(path);
  const document = useWorked();
  const { data } = useQuery({
    queryKey: ["fact-tables", identityOf(document)],
    queryFn: ({ signal }) => getFactTables(document, signal),
    enabled: fact !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
  });
  if (fact === undefined) return null;
  return { fact, rows: (data?.find((t) => t.path === path)?.rows as Row[] | undefined) ?? NONE };
}
