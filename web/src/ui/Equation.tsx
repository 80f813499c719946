// An equation as mathematics: MathML made by the server from the registry's text, or that text until it is there.
import { MathText } from "./MathText";

export function Equation({ symbolic, mathml, className = "" }: { symbolic: string; mathml?: string; className?: string }) {
  const box = `equation overflow-x-auto overflow-y-hidden ${className}`;
  if (mathml === undefined) {
    return (
      <div className={`${box} font-narrow`}>
        <MathText text={symbolic} />
      </div>
    );
  }
  return <div className={box} role="math" aria-label={symbolic} tabIndex={0} dangerouslySetInnerHTML={{ __html: mathml }} />;
}
