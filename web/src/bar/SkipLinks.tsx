// What Tab reaches first: past the bar and the drawings to the fields of the step, or to the findings.
const WAYS = [
  ["step-fields", "Skip to the fields of this step"],
  ["findings", "Skip to the findings"],
] as const;

export function SkipLinks() {
  return (
    <nav aria-label="Skip" className="print:hidden">
      {WAYS.map(([id, words]) => (
        <a
          key={id}
          href={`#${id}`}
          className="sr-only focus:not-sr-only focus:absolute focus:top-1 focus:left-1 focus:z-50 focus:rounded-sm focus:bg-sheet focus:px-3 focus:py-1.5 focus:text-ink focus:outline-2 focus:outline-petrol"
          onClick={(event) => {
            event.preventDefault();
            document.getElementById(id)?.focus();
          }}
        >
          {words}
        </a>
      ))}
    </nav>
  );
}
