// The log in the browser: entries written, and what its views ask of it.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { getLog, getLogbook, writeLog } from "../../design/api";
import { useBench, useEvaluated, useSnapshot, useWorkable } from "../../design/context";
import type { CurveRow, LogbookView, LogEntry, NewEntry } from "../../design/types";
import { identityOf } from "../../design/useRested";
import { useUnits } from "../../ui/units";

export function useLog(): readonly LogEntry[] {
  return useSnapshot("log");
}

/** Write entries; the session shows them at once. Throws what the server refuses. */
export function useWriteLog(): (entries: readonly NewEntry[]) => Promise<void> {
  const { session } = useBench();
  return async (entries) => {
    const last = session.snapshot().log.at(-1)?.number ?? 0;
    const made = await writeLog(session.id, entries);
    // somebody else has written meanwhile: theirs comes along
    if (made[0]?.number === last + 1) session.logged.add(made);
    else session.logged.replace(await getLog(session.id));
  };
}

/** What others wrote comes in when the page is looked at again. */
export function useFreshLog(): void {
  const { session } = useBench();
  useEffect(() => {
    const fresh = () => {
      getLog(session.id).then(
        (log) => {
          session.logged.replace(log);
        },
        () => undefined,
      );
    };
    fresh();
    window.addEventListener("focus", fresh);
    return () => {
      window.removeEventListener("focus", fresh);
    };
  }, [session]);
}

/** What is still free, the plan beside the well as drilled, and results that differ. */
export function useLogbook(): { data: LogbookView | undefined; behind: boolean } {
  const { session } = useBench();
  const document = useWorkable();
  const logged = (document?.log?.length ?? 0) > 0;
  const { data, isFetching } = useQuery({
    queryKey: ["logbook", document && identityOf(document)],
    queryFn: ({ signal }) => getLogbook(document!, signal),
    enabled: logged && !session.dragging(),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
  });
  return { data: logged ? data : undefined, behind: isFetching };
}

const NO_CURVE: readonly CurveRow[] = [];

/** Days against depth as planned: the plan's own schedule, whatever has been drilled since. */
export function usePlannedCurve(): readonly CurveRow[] {
  const worked = useEvaluated((e) => e.runsheet.curve);
  return useLogbook().data?.detail.planned ?? worked ?? NO_CURVE;
}

/** The size of a string by its id, as it is spoken of. */
export function useSizes(): (id: string) => string {
  const strings = useSnapshot("document").strings;
  const units = useUnits();
  return (id) => {
    const string = strings.find((s) => s.id === id);
    if (string === undefined) return id;
    return string.od_in == null ? string.role : units.text(string.od_in, "size");
  };
}
