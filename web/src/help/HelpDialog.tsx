// Help: where to begin, what can be done in a drawing and a table, and what the words mean.
import { useState } from "react";
import { useReference } from "../design/reference";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Tabs } from "../ui/Tabs";
import { StartGuide } from "./StartGuide";

const WAYS: readonly (readonly [string, string])[] = [
  [
    "In the drawings",
    "Drag a shoe, a top of cement, a profile point or a mud weight; arrow keys move what is focused; a number typed goes over it.",
  ],
  [
    "In the tables",
    "As in a spreadsheet: type, paste, fill down, insert; the second button shows what can be done. Import reads CSV, XLSX and LAS.",
  ],
  ["Findings", "At the right: what is wrong, by how much, and what mends it. Click one to be led to its field. Unknown is never good."],
  ["Numbers", "An underlined number opens its working: every formula with its inputs and its source."],
  ["Assumptions", "What the tool filled in is in italics and listed under the findings, until you type it."],
  [
    "Barriers",
    "Under Completion every state of the well is counted and drawn with its two envelopes. What may not be removed yet is told; a page a state is printed for signatures.",
  ],
  [
    "Run sheet",
    "It follows from the design. Cross a step out, move it with Alt and the arrows, or add one of your own: what breaks an order rule is told with the rule. Issue it, and every later change of the design marks the steps that read otherwise.",
  ],
  [
    "Schedule",
    "Drag the end of a hole along the days: its drilling rate follows, and the end of the well. A zone may have a rate of its own.",
  ],
  [
    "Drills",
    "Start a scene and play it by mouse or keys; the clock can be stopped for talking. The debrief says what was asked and why, and its slider replays the well on the section. A rehearsal aid, no certificate.",
  ],
  ["At sea", "A well on the sea floor has a step of its own. Under Ground, Site the whole well is moved to other water by one number."],
  ["Undo", "Ctrl Z takes back any edit, without end. Everything is saved by itself; History holds every revision."],
];

interface HelpProps {
  close: () => void;
  showKeys: () => void;
}

export function HelpDialog({ close, showKeys }: HelpProps) {
  const [tab, setTab] = useState("start");
  return (
    <Modal open onOpenChange={close} title="Help" width="w-[44rem]">
      <Tabs
        label="Help"
        value={tab}
        onChange={setTab}
        tabs={[
          { value: "start", title: "Start guide", content: <StartGuide onGone={close} /> },
          { value: "ways", title: "Ways of working", content: <Ways showKeys={showKeys} /> },
          { value: "terms", title: "Terms", content: <Terms /> },
        ]}
      />
      <p className="mt-2 shrink-0 border-t border-rule pt-2 text-[11.5px] text-mute">
        A planning aid. Results need checking by a competent and, where required, licensed engineer; local rules prevail.
      </p>
    </Modal>
  );
}

function Ways({ showKeys }: { showKeys: () => void }) {
  return (
    <>
      <dl className="grid grid-cols-[8rem_1fr] gap-x-2 gap-y-1.5">
        {WAYS.map(([title, text]) => (
          <div key={title} className="contents">
            <dt className="font-semibold">{title}</dt>
            <dd className="text-mute">{text}</dd>
          </div>
        ))}
      </dl>
      <Button className="mt-3" onClick={showKeys}>
        List of keys
      </Button>
    </>
  );
}

function Terms() {
  const { terms } = useReference();
  const [sought, setSought] = useState("");
  const wanted = sought.trim().toLowerCase();
  const shown = Object.entries(terms).filter(([term, meaning]) => `${term} ${meaning}`.toLowerCase().includes(wanted));
  return (
    <>
      <input
        className="cell mb-2 border-rule!"
        aria-label="Find a term"
        placeholder="find a term"
        value={sought}
        onChange={(event) => {
          setSought(event.target.value);
        }}
      />
      <dl className="grid grid-cols-[11rem_1fr] gap-x-2 gap-y-0.5">
        {shown.map(([term, meaning]) => (
          <div key={term} className="contents">
            <dt className="font-semibold">{term}</dt>
            <dd className="text-mute">{meaning}</dd>
          </div>
        ))}
      </dl>
      {shown.length === 0 && <p className="text-mute">No term of that name.</p>}
    </>
  );
}
