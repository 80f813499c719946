// Over a table that is as logged: where it comes from, and how it is corrected or the plan's rows are edited.
import { NotebookPen } from "lucide-react";
import { useBench } from "../../design/context";
import type { FactRow } from "../../design/types";
import { Button } from "../Button";

export function FactNote({ fact, refused }: { fact: FactRow; refused: boolean }) {
  const { session, goTo } = useBench();
  const last = fact.entries[fact.entries.length - 1];
  return (
    <p
      className={`mb-1 flex flex-wrap items-center gap-1.5 text-[12px] ${refused ? "text-brick" : "text-mute"}`}
      role={refused ? "alert" : undefined}
      data-fact={last}
    >
      <NotebookPen size={12} aria-hidden className="text-petrol" />
      {refused ? "Nothing was changed: these rows are as logged." : "As drilled, by the log."}
      <Button onClick={() => goTo("logbook", `/log/${last}`)}>Log entry {last}</Button>
      <Button onClick={() => session.logged.view("plan")}>Show the plan to edit it</Button>
    </p>
  );
}
