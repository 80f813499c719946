// Both schools of setting depths for the ground and policy at hand.
import { findPrograms } from "../../design/api";
import { useBench, useSnapshot } from "../../design/context";
import type { ProgramsResult } from "../../design/types";
import { useRested } from "../../design/useRested";

const REST_MS = 500;

export function usePrograms(): { programs: ProgramsResult | undefined; behind: boolean } {
  const { session } = useBench();
  const document = useSnapshot("document");
  const asked = JSON.stringify([document.site, document.trajectory, document.ground, document.policy]);
  const { data, behind } = useRested(["programs"], asked, REST_MS, (signal) => findPrograms(session.snapshot().document, signal));
  return { programs: data, behind };
}
