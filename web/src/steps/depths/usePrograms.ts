// Both schools of setting depths for the ground and policy at hand.
import { useMemo } from "react";
import { findPrograms } from "../../design/api";
import { useBench, useDocument, useWorked } from "../../design/context";
import type { ProgramsResult } from "../../design/types";
import { useRested } from "../../design/useRested";

const REST_MS = 500;

export function usePrograms(): { programs: ProgramsResult | undefined; behind: boolean } {
  const { session } = useBench();
  const [site, trajectory, ground, policy] = [
    useDocument((d) => d.site),
    useDocument((d) => d.trajectory),
    useDocument((d) => d.ground),
    useDocument((d) => d.policy),
  ];
  const { log } = useWorked();
  // strings are not in it: a dragged shoe leaves it alone
  const asked = useMemo(() => JSON.stringify([site, trajectory, ground, policy, log]), [site, trajectory, ground, policy, log]);
  const { data, behind } = useRested(["programs"], asked, REST_MS, (signal) => findPrograms(session.worked(), signal));
  return { programs: data, behind };
}
