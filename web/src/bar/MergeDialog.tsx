// Two versions of a design made one: what differs in words, and at each place that both changed a choice.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "../design/api";
import { useBench, useSnapshot } from "../design/context";
import type { Newest } from "../design/session";
import type { Clash, Difference, Side } from "../design/types";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { useUnits } from "../ui/units";

export function MergeDialog({ newest, close }: { newest: Newest; close: () => void }) {
  const { session } = useBench();
  const document = useSnapshot("document");
  const basedOn = useSnapshot("revision");
  const [choices, setChoices] = useState<Record<string, Side>>({});
  const { data, isError } = useQuery({
    queryKey: ["merge", session.id, basedOn, newest.newest_revision, document, choices],
    queryFn: () => api.mergeWith(session.id, basedOn, newest.newest_revision, document, choices),
    placeholderData: (before) => before,
    retry: false,
    gcTime: 0,
  });
  const mine = newest.newest_author === "" ? "Revision" : newest.newest_author;
  return (
    <Modal open onOpenChange={close} title={`Merge with revision ${newest.newest_revision}`} width="w-[44rem]">
      <div className="min-h-0 flex-1 overflow-auto text-[13px] text-ink">
        {isError && <p className="text-brick">Yours cannot be read as it stands: mend its faults in the margin first.</p>}
        {data === undefined && !isError && <p className="text-mute">Comparing…</p>}
        {data && (
          <>
            <Told newest={newest} />
            <h3 className="mt-3 font-semibold">
              {data.clashes.length === 0 ? "No place was changed by both: the two go together." : "Changed by both: choose"}
            </h3>
            {data.clashes.length > 0 && (
              <table className="mt-1 w-full border-collapse">
                <thead>
                  <tr className="text-left text-[12px] text-mute">
                    <th className="border-b border-rule font-normal">Place</th>
                    <th className="border-b border-rule font-normal">Before</th>
                    <th className="border-b border-rule font-normal">
                      {mine === "Revision" ? `Revision ${newest.newest_revision}` : mine}
                    </th>
                    <th className="border-b border-rule font-normal">Yours</th>
                  </tr>
                </thead>
                <tbody>
                  {data.clashes.map((clash) => (
                    <ClashRow
                      key={clash.place}
                      clash={clash}
                      chosen={choices[clash.place]}
                      choose={(side) => {
                        setChoices({ ...choices, [clash.place]: side });
                      }}
                    />
                  ))}
                </tbody>
              </table>
            )}
          </>
        )}
      </div>
      <p className="mt-3 flex shrink-0 items-center gap-2">
        <Button
          kind="act"
          disabled={data === undefined || data.clashes.some((c) => choices[c.place] === undefined) || data.left > 0}
          onClick={() => {
            session.takeMerged(data!.document);
            close();
          }}
        >
          Merge as revision {newest.newest_revision + 1}
        </Button>
        <Button onClick={close}>Cancel</Button>
        {data && (
          <span className="text-mute">
            {count(data.from_theirs)} from revision {newest.newest_revision}, {count(data.from_mine)} from yours
          </span>
        )}
      </p>
    </Modal>
  );
}

const count = (n: number) => (n === 1 ? "1 change" : `${n} changes`);

function ClashRow({ clash, chosen, choose }: { clash: Clash; chosen: Side | undefined; choose: (side: Side) => void }) {
  const units = useUnits();
  const option = (side: Side) => (
    <label className={`flex items-baseline gap-1.5 ${chosen === side ? "font-semibold" : ""}`}>
      <input
        type="radio"
        name={clash.place}
        checked={chosen === side}
        aria-label={`${clash.subject}: ${side === "mine" ? "yours" : "theirs"}, ${units.words(clash[side])}`}
        onChange={() => {
          choose(side);
        }}
      />
      {units.words(clash[side])}
    </label>
  );
  return (
    <tr className="border-b border-rule/60 align-top">
      <td className="py-1 pr-2">{clash.subject}</td>
      <td className="py-1 pr-2 text-mute">{units.words(clash.before)}</td>
      <td className="py-1 pr-2">{option("theirs")}</td>
      <td className="py-1">{option("mine")}</td>
    </tr>
  );
}

/** Everything that differs between the two, in words. */
function Told({ newest }: { newest: Newest }) {
  const document = useSnapshot("document");
  const units = useUnits();
  const { data } = useQuery({
    queryKey: ["differences", newest.newest_revision, document],
    queryFn: () => api.tellDifferences(newest.newest_document, document),
    retry: false,
    gcTime: 0,
  });
  if (data === undefined) return null;
  return (
    <details open={data.length <= 12}>
      <summary className="cursor-pointer font-semibold">What differs: {data.length === 1 ? "1 place" : `${data.length} places`}</summary>
      <ul>
        {data.map((change: Difference) => (
          <li key={change.place + change.subject}>
            {change.subject}: theirs {units.words(change.before)}, yours {units.words(change.after)}
          </li>
        ))}
      </ul>
    </details>
  );
}
