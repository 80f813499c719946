// Every chain of sizes for the strings in force.
import { getChains } from "../../design/api";
import { useBench, useWorked } from "../../design/context";
import type { ChainsResult } from "../../design/types";
import { useRested } from "../../design/useRested";

const REST_MS = 250;

export function useChains(): { chains: ChainsResult | undefined; behind: boolean } {
  const { session } = useBench();
  const asked = JSON.stringify(useWorked());
  const { data, behind } = useRested(["chains"], asked, REST_MS, (signal) => getChains(session.worked(), signal));
  return { chains: data, behind };
}
