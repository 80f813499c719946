// The stack on the panel, drawn as it moves: blocks close on the bore, each element a button; valves of choke line and overboard line.
import type { DrillPanel, PanelLight } from "../../design/types";
import { useMotion } from "../../ui/motion";

const WIDTH = 316;
const CENTRE = 98;
const BORE = 30;
const BODY: Record<string, number> = { annular: 68, ram: 48, diverter: 52 };
const GAP = 8;
const TOP = 34;
const HALF: Record<string, number> = { annular: 66, ram: 92, diverter: 58 };
const PIPE: Record<string, number> = { "drill pipe": 7, casing: 20, "collars at surface": 15 };

interface Props {
  panel: DrillPanel;
  onElement: (light: PanelLight) => void;
  onChokeLine: () => void;
  onOverboard: () => void;
}

export function StackPicture({ panel, onElement, onChokeLine, onOverboard }: Props) {
  const placed = placedBelow(panel.elements);
  const foot = (placed[placed.length - 1]?.top ?? TOP) + 112;
  const pipe = panel.bit_md_ft === null || panel.cut ? 0 : (PIPE[panel.string] ?? 7);
  const lowest = placed[placed.length - 1];
  const lineY = (lowest?.top ?? 40) + (lowest?.height ?? 30) + 26;
  return (
    <div className="relative mx-auto" style={{ width: WIDTH, height: foot }} role="group" aria-label="Stack">
      <svg width={WIDTH} height={foot} aria-hidden className="absolute inset-0">
        <rect x={CENTRE - BORE} y={4} width={2 * BORE} height={foot - 8} fill="var(--fluid-mud)" />
        {[-1, 1].map((side) => (
          <line key={side} x1={CENTRE + side * BORE} x2={CENTRE + side * BORE} y1={4} y2={foot - 4} stroke="var(--steel)" strokeWidth={2} />
        ))}
        {pipe > 0 && (
          <rect x={CENTRE - pipe} y={0} width={2 * pipe} height={foot} fill="var(--paper)" stroke="var(--steel)" strokeWidth={2} />
        )}
        {placed.map(({ light, top, height }) => (
          <Element key={light.index} light={light} top={top} height={height} />
        ))}
        {panel.has_choke && (
          <>
            <rect x={CENTRE + BORE} y={lineY - 4} width={WIDTH - CENTRE - BORE - 130} height={8} fill="var(--rule)" />
            <path d={valve(CENTRE + BORE + 30, lineY)} fill={panel.choke_line ? "var(--moss)" : "var(--brick)"} />
          </>
        )}
      </svg>
      {placed.map(({ light, key, top, height }) => (
        <button
          key={light.index}
          type="button"
          className="absolute left-0 w-full rounded border border-transparent text-left text-[12.5px] leading-tight hover:border-petrol"
          style={{ top, height }}
          aria-pressed={light.wanted}
          data-told={`${light.title} ${stateOf(light)}`}
          data-element={light.index}
          onClick={() => onElement(light)}
        >
          <span className="absolute top-0 right-1 bottom-0 flex w-[7.4rem] flex-col justify-center">
            <span>
              <kbd className="mr-0.5 rounded border border-rule px-1 text-[10.5px] text-mute">{key}</kbd> {light.title}
            </span>
            <span className={light.position >= 1 ? "font-semibold text-brick" : "text-mute"}>{stateOf(light)}</span>
          </span>
        </button>
      ))}
      {panel.has_choke && (
        <button
          type="button"
          className="absolute right-1 w-[7.4rem] rounded border border-rule px-1.5 text-left text-[12.5px] hover:border-petrol"
          style={{ top: lineY - 11 }}
          aria-pressed={panel.choke_line}
          data-valve="choke line"
          onClick={onChokeLine}
        >
          <kbd className="mr-0.5 text-[10.5px] text-mute">c</kbd> Choke line {panel.choke_line ? "open" : "shut"}
        </button>
      )}
      {panel.has_diverter && (
        <button
          type="button"
          className="absolute top-0 right-1 w-[7.4rem] rounded border border-rule px-1.5 text-left text-[12.5px] hover:border-petrol"
          aria-pressed={panel.overboard}
          data-valve="overboard"
          onClick={onOverboard}
        >
          <kbd className="mr-0.5 text-[10.5px] text-mute">d</kbd> Overboard {panel.overboard ? "open" : "shut"}
        </button>
      )}
    </div>
  );
}

/** Where each element stands, from the top. */
function placedBelow(elements: readonly PanelLight[]) {
  const heights = elements.map((light) => BODY[light.kind] ?? 30);
  return elements.map((light, i) => ({
    light,
    key: i + 1,
    top: TOP + heights.slice(0, i).reduce((sum, h) => sum + h + GAP, 0),
    height: heights[i]!,
  }));
}

export function stateOf(light: PanelLight): string {
  if (light.out_of_service) return "out of service";
  if (light.hung) return "closed, string hung";
  if (light.position >= 1) return "closed";
  if (light.position <= 0) return "open";
  return light.wanted ? "closing" : "opening";
}

function valve(x: number, y: number): string {
  return `M${x - 9},${y - 8}L${x + 9},${y + 8}L${x + 9},${y - 8}L${x - 9},${y + 8}Z`;
}

/** Body on both sides of the bore, and its blocks or packer as far in as they are; at rest until closed where motion is not wanted. */
function Element({ light, top, height }: { light: PanelLight; top: number; height: number }) {
  const half = HALF[light.kind] ?? 70;
  const moves = useMotion();
  const reach = (moves || light.position >= 1 ? light.position : 0) * (BORE - 1);
  const fill = light.out_of_service ? "var(--rule)" : light.position >= 1 ? "var(--brick)" : "var(--gold)";
  return (
    <g>
      {[-1, 1].map((side) => (
        <g key={side} transform={`translate(${CENTRE} 0) scale(${side} 1)`}>
          {light.kind === "annular" ? (
            <>
              <path
                d={`M${BORE},${top}h${half - BORE - 14}q14,0 14,14v${height - 14}h${-(half - BORE)}Z`}
                fill="var(--sheet)"
                stroke="var(--steel)"
                strokeWidth={1.6}
              />
              <path
                d={`M${BORE},${top + 6}q${-2 * reach},${height / 2 - 6} 0,${height - 12}h${half - BORE - 12}v${12 - height}Z`}
                fill={fill}
              />
            </>
          ) : (
            <>
              <rect x={BORE} y={top} width={half - BORE} height={height} fill="var(--sheet)" stroke="var(--steel)" strokeWidth={1.6} />
              <rect x={BORE - reach} y={top + 5} width={half - BORE - 6} height={height - 10} fill={fill} />
            </>
          )}
        </g>
      ))}
    </g>
  );
}
