// The bin: wells and designs that were deleted, put back or, by hand, gone for good.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import * as api from "../design/api";
import type { BinItem } from "../design/types";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { moment } from "../ui/moment";

export function Bin() {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const [sure, setSure] = useState("");
  const [refusal, setRefusal] = useState("");
  const { data: items = [] } = useQuery({ queryKey: ["bin"], queryFn: api.listBin, refetchOnMount: "always" });
  if (items.length === 0 && !open) return null;
  const act = async (done: Promise<unknown>) => {
    setSure("");
    setRefusal("");
    await done.catch((error: unknown) => {
      setRefusal(error instanceof api.ProblemError ? error.problem.detail : "The server is not reached.");
    });
    await client.invalidateQueries({ queryKey: ["bin"] });
    await client.invalidateQueries({ queryKey: ["designs"] });
  };
  return (
    <>
      <Button
        onClick={() => {
          setOpen(true);
        }}
      >
        <Trash2 size={14} aria-hidden /> Bin ({items.length})
      </Button>
      <Modal open={open} onOpenChange={setOpen} title="Bin" width="w-[44rem]">
        {refusal && (
          <p role="alert" className="mb-2 text-brick">
            {refusal}
          </p>
        )}
        {items.length === 0 && <p className="text-mute">The bin is empty.</p>}
        <ul className="min-h-0 overflow-auto">
          {items.map((item) => (
            <BinRow key={item.kind + String(item.id)} item={item} sure={sure} ask={setSure} act={(done) => void act(done)} />
          ))}
        </ul>
        {items.length > 0 && (
          <p className="mt-3 flex shrink-0 items-center gap-2">
            {sure === "all" ? (
              <>
                <Button className="border-brick! text-brick!" onClick={() => void act(api.emptyBin())}>
                  Empty it for good
                </Button>
                <Button
                  onClick={() => {
                    setSure("");
                  }}
                >
                  Keep everything
                </Button>
              </>
            ) : (
              <Button
                onClick={() => {
                  setSure("all");
                }}
              >
                Empty the bin…
              </Button>
            )}
            <span className="text-mute">Nothing leaves the bin by itself. What is emptied is gone with every revision.</span>
          </p>
        )}
      </Modal>
    </>
  );
}

interface BinRowProps {
  item: BinItem;
  sure: string;
  ask: (key: string) => void;
  act: (done: Promise<unknown>) => void;
}

function BinRow({ item, sure, ask, act }: BinRowProps) {
  const key = `${item.kind} ${item.id}`;
  const name = item.kind === "well" ? item.well_name || "unnamed well" : `${item.well_name}: ${item.design_name}`;
  return (
    <li className="flex items-center gap-2 border-b border-rule/60 py-1">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold" title={name}>
          {name}
        </span>
        <span className="text-[12px] text-mute">
          {item.kind === "well" ? (item.designs === 1 ? "well with 1 design" : `well with ${item.designs} designs`) : "design"}, deleted{" "}
          {moment(item.deleted_at)} by {item.deleted_by}
        </span>
      </span>
      <Button
        kind="act"
        onClick={() => {
          act(api.putBack(item));
        }}
      >
        Put back<span className="sr-only"> {name}</span>
      </Button>
      {sure === key ? (
        <Button
          className="border-brick! text-brick!"
          onClick={() => {
            act(api.deleteForGood(item));
          }}
        >
          Delete for good
        </Button>
      ) : (
        <Button
          aria-label={`Delete ${name} for good…`}
          onClick={() => {
            ask(key);
          }}
        >
          Delete…
        </Button>
      )}
    </li>
  );
}
