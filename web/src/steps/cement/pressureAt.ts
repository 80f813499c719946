// The pressure that is drawn at a depth: straight between the places at which the server tells it. No React.
import type { JobStage } from "../../design/types";

/** Inside the pipe or in the annulus at one moment; null beyond both ends. */
export function pressureAt(stage: JobStage, moment: number, mdFt: number, side: "pipe" | "annulus"): number | null {
  const [md, psi, nodes] =
    side === "pipe"
      ? [stage.pipe_md_ft[moment]!, stage.pipe_psi[moment]!, stage.node_pipe_psi[moment]!]
      : [stage.annulus_md_ft[moment]!, stage.annulus_psi[moment]!, stage.node_annulus_psi[moment]!];
  const top = md[0]!;
  const bottom = md[md.length - 1]!;
  if (mdFt > bottom + 1e-6) return null;
  if (mdFt < top) return side === "pipe" ? 0 : null;
  // boundaries first: where one stands on a fixed depth its own number counts
  const known = md.map((at, i) => [at, psi[i]!] as const);
  stage.nodes_md_ft.forEach((at, i) => {
    if (at > top && at < bottom) known.push([at, nodes[i]!]);
  });
  let above: readonly [number, number] = [top, psi[0]!];
  let below: readonly [number, number] = [bottom, psi[psi.length - 1]!];
  for (const place of known) {
    if (place[0] <= mdFt && place[0] >= above[0]) above = place;
    if (place[0] >= mdFt && place[0] <= below[0]) below = place;
  }
  const span = below[0] - above[0];
  return span <= 0 ? above[1] : above[1] + ((mdFt - above[0]) / span) * (below[1] - above[1]);
}
