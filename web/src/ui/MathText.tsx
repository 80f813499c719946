// An equation or symbol as mathematics: what follows an underscore is set as a subscript.
const SUBSCRIPT = /_([A-Za-z0-9]+)/;

export function MathText({ text }: { text: string }) {
  return <>{text.split(SUBSCRIPT).map((part, i) => (i % 2 === 1 ? <sub key={i}>{part}</sub> : part))}</>;
}
