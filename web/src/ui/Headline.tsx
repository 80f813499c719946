// A number that opens into its working.
import type { ReactNode } from "react";
import { useBench } from "../design/context";

export function Headline({ working, title, children }: { working: string; title: string; children: ReactNode }) {
  const { ask, asked } = useBench();
  return (
    <button
      type="button"
      className={`rounded-sm underline decoration-dotted decoration-1 underline-offset-3 hover:text-petrol ${
        asked?.key === working ? "text-petrol" : ""
      }`}
      title={`Show the working: ${title}`}
      data-working={working}
      onClick={() => {
        ask(working, title);
      }}
    >
      {children}
    </button>
  );
}
