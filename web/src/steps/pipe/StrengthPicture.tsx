// A section's strength: the von Mises ellipse at the factor asked and at yield, the box of burst, collapse and tension,
// and every load of every case, axial force against the difference of pressure.
import { scaleLinear } from "d3-scale";
import type { Envelope, LoadsResult, SectionResult } from "../../design/types";
import { line } from "../../depth/Track";
import { grouped } from "../../ui/numbers";
import { SavePicture } from "../../ui/SavePicture";
import { useUnits } from "../../ui/units";
import { differential, forceScale } from "./shown";

const WIDTH_PX = 330;
const HEIGHT_PX = 230;
const PAD = { left: 46, right: 8, top: 8, bottom: 30 };

interface Props {
  loads: LoadsResult;
  sections: readonly SectionResult[];
  place: number;
  chosen: string | null;
  factors: { burst: number; collapse: number; tension: number };
}

export function StrengthPicture({ loads, sections, place, chosen, factors }: Props) {
  const units = useUnits();
  const [yielded, allowed, section] = [loads.yields[place], loads.envelopes[place], sections[place]];
  if (!yielded || !allowed || !section) return null;
  const { factor: force, label } = forceScale(units.factor("force"), units.unit("force"));
  const psi = units.factor("pressure");
  const x = scaleLinear(
    [Math.min(...yielded.least_lbf) * force, Math.max(...yielded.greatest_lbf) * force],
    [PAD.left, WIDTH_PX - PAD.right],
  ).nice();
  const y = scaleLinear(
    [Math.min(...yielded.differential_psi) * psi, Math.max(...yielded.differential_psi) * psi],
    [HEIGHT_PX - PAD.bottom, PAD.top],
  ).nice();
  const at = (lbf: number, pressure: number) => [x(lbf * force), y(pressure * psi)] as const;
  const outline = (e: Envelope) =>
    `${line([...e.differential_psi.map((p, i) => at(e.greatest_lbf[i]!, p)), ...e.differential_psi.map((p, i) => at(e.least_lbf[i]!, p)).reverse()])}Z`;
  const inner =
    Math.min(section.burst_psi, section.coupling_psi ?? section.burst_psi, section.leak_psi ?? section.burst_psi) / factors.burst;
  const pull = Math.min(section.body_lbf, section.joint_lbf ?? section.body_lbf) / factors.tension;
  const crush = section.collapse_psi / factors.collapse;
  const [left, top] = at(-section.body_lbf / factors.tension, inner);
  const [right, bottom] = at(pull, -crush);
  const own = (i: number) => loads.section_of_node[i] === place;
  return (
    <div data-picture>
      <svg
        width={WIDTH_PX}
        height={HEIGHT_PX}
        role="img"
        aria-label={`Strength of the section against every load: ellipse, box and ${loads.cases.length} cases`}
        className="block max-w-full"
      >
        <line x1={x.range()[0]} x2={x.range()[1]} y1={y(0)} y2={y(0)} stroke="var(--rule)" />
        <line x1={x(0)} x2={x(0)} y1={y.range()[0]} y2={y.range()[1]} stroke="var(--rule)" />
        <path d={outline(yielded)} fill="none" stroke="var(--mute)" strokeWidth={1} strokeDasharray="2 3" />
        <path d={outline(allowed)} fill="var(--sheet)" stroke="var(--brick)" strokeWidth={1.5} />
        <rect
          x={left}
          y={top}
          width={right - left}
          height={bottom - top}
          fill="none"
          stroke="var(--petrol)"
          strokeWidth={1.2}
          strokeDasharray="5 3"
        />
        {loads.cases.map((item) => {
          const inHand = item.name === chosen;
          const points = differential(item).flatMap((p, i) => (own(i) ? [at(item.axial_lbf[i]!, p)] : []));
          return (
            <path
              key={item.name}
              d={line(points)}
              fill="none"
              stroke={inHand ? "var(--ink)" : "var(--mute)"}
              strokeWidth={inHand ? 2.4 : 1.3}
              strokeLinecap="round"
            >
              <title>{item.name}</title>
            </path>
          );
        })}
        {x.ticks(4).map((tick) => (
          <text key={tick} x={x(tick)} y={HEIGHT_PX - 17} fontSize={10.5} textAnchor="middle" style={{ fill: "var(--mute)" }}>
            {grouped(tick)}
          </text>
        ))}
        {y.ticks(5).map((tick) => (
          <text key={tick} x={PAD.left - 4} y={y(tick) + 3.5} fontSize={10.5} textAnchor="end" style={{ fill: "var(--mute)" }}>
            {grouped(tick)}
          </text>
        ))}
        <text x={(PAD.left + WIDTH_PX) / 2} y={HEIGHT_PX - 4} fontSize={10.5} textAnchor="middle" style={{ fill: "var(--mute)" }}>
          axial force, {label} · inside less outside, {units.unit("pressure")}
        </text>
      </svg>
      <SavePicture title="Strength of the section" />
    </div>
  );
}
