// What stands around the stack-up: ground and cellar or the wellhead deck, rotary beams and rotary, bell nipple and flow line.
import type { StackMoment } from "../design/types";
import type { StackScale } from "./layout";

interface SurroundingsProps {
  moment: StackMoment;
  scale: StackScale;
  centre: number;
  from: number;
  to: number;
  setting: Setting;
}

const CELLAR_IN = 38;
const FLOOR = { land: "ground", platform: "wellhead deck", subsea: "mudline" } as const;
type Setting = keyof typeof FLOOR;

export function Surroundings({ moment, scale, centre, from, to, setting }: SurroundingsProps) {
  const onLand = setting === "land";
  const ground = scale.y(moment.ground_in);
  const floor = scale.y(0);
  const wall = Math.min(CELLAR_IN * scale.pxPerIn, (to - from) / 2);
  return (
    <g aria-hidden>
      {onLand ? (
        <g fill="var(--rule)">
          <rect x={from} y={ground} width={Math.max(0, centre - wall - from)} height={Math.max(0, floor - ground)} />
          <rect x={centre + wall} y={ground} width={Math.max(0, to - centre - wall)} height={Math.max(0, floor - ground)} />
          <rect x={from} y={floor} width={to - from} height={400} />
        </g>
      ) : (
        <rect
          x={from}
          y={floor}
          width={to - from}
          height={setting === "subsea" ? 400 : 6}
          fill={setting === "subsea" ? "var(--rule)" : "var(--mute)"}
        />
      )}
      <Line y={ground} from={from} to={to} text={FLOOR[setting]} />
      {onLand && ground !== floor && <Line y={floor} from={from} to={to} text="cellar floor" />}
      {moment.beams_in !== null && <Line y={scale.y(moment.beams_in)} from={from} to={to} text="rotary beams" dashed />}
      {moment.rotary_in !== null && <Line y={scale.y(moment.rotary_in)} from={from} to={to} text="rotary" />}
      <Nipple moment={moment} scale={scale} centre={centre} to={to} />
    </g>
  );
}

function Line({ y, from, to, text, dashed = false }: { y: number; from: number; to: number; text: string; dashed?: boolean }) {
  return (
    <>
      <line x1={from} x2={to} y1={y} y2={y} stroke="var(--mute)" strokeDasharray={dashed ? "5 3" : undefined} />
      <text x={from + 3} y={y - 3} fontSize={10} style={{ fill: "var(--mute)" }} className="halo">
        {text}
      </text>
    </>
  );
}

/** From the top of the stack up under the rotary, with the flow line at its side. */
function Nipple({ moment, scale, centre, to }: { moment: StackMoment; scale: StackScale; centre: number; to: number }) {
  const stack = moment.items.filter((item) => item.step === "preventers");
  const top = Math.max(...stack.map((item) => item.top_in));
  const up = moment.beams_in ?? moment.rotary_in;
  if (stack.length === 0 || up === null || up <= top) return null;
  const half = ((stack.at(-1)!.bore_in ?? 20) / 2) * scale.pxPerIn;
  const line = moment.flow_line_in !== null && moment.flow_line_in > top ? scale.y(moment.flow_line_in) : null;
  return (
    <g stroke="var(--mute)" fill="none" strokeDasharray="2 2">
      <path d={`M${centre - half} ${scale.y(top)} V${scale.y(up)} M${centre + half} ${scale.y(top)} V${scale.y(up)}`} />
      {line !== null && (
        <path d={`M${centre + half} ${line} H${Math.min(to, centre + half + 60)}`} strokeWidth={3} strokeDasharray="none" />
      )}
    </g>
  );
}
