// The design at hand and its alternatives: open one, lay one beside, copy, rename, delete, and the history.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ChevronDown, Columns2, Copy, History, Pencil, Stamp, Trash2 } from "lucide-react";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import * as api from "../design/api";
import { useBench, useSnapshot } from "../design/context";
import { Button } from "../ui/Button";
import { Menu, MenuHeading, MenuItem, MenuRule } from "../ui/Menu";
import { Modal } from "../ui/Modal";
import { usePeople } from "../people";
import { SIGN_WORDS, SignOffDialog, useSignOff } from "./SignOffDialog";

type Asking = "copy" | "rename" | "delete";
const TITLES: Record<Asking, string> = {
  copy: "Copy to an alternative",
  rename: "Rename this design",
  delete: "Delete this design?",
};

export function DesignMenu({ designName }: { designName: string }) {
  const { session } = useBench();
  const save = useSnapshot("save");
  const { step } = useParams();
  const navigate = useNavigate();
  const [asking, setAsking] = useState<Asking | null>(null);
  const [signing, setSigning] = useState(false);
  const revision = useSnapshot("revision");
  const people = usePeople();
  const { data: designs } = useQuery({ queryKey: ["designs"], queryFn: api.listDesigns });
  const mine = designs?.find((d) => d.id === session.id);
  const others = designs?.filter((d) => d.well_id === mine?.well_id && d.id !== session.id) ?? [];
  return (
    <>
      <Menu
        trigger={
          <button
            type="button"
            className="flex max-w-56 items-center gap-0.5 text-[12.5px] text-bar-ink/75 hover:text-bar-ink"
            title={`Design: ${mine?.name ?? designName}`}
          >
            <span className="truncate">{mine?.name ?? designName}</span> <ChevronDown size={13} aria-hidden className="shrink-0" />
          </button>
        }
      >
        {others.length > 0 && <MenuHeading>Open</MenuHeading>}
        {others.map((d) => (
          <MenuItem key={d.id} onSelect={() => void navigate(`/designs/${d.id}/${step ?? "depths"}`)}>
            {d.name}
          </MenuItem>
        ))}
        {others.length > 0 && <MenuHeading>Compare with this one</MenuHeading>}
        {others.map((d) => (
          <MenuItem key={d.id} disabled={save !== "saved"} onSelect={() => void navigate(`/designs/${session.id}/beside/${d.id}`)}>
            <Columns2 size={13} aria-hidden /> {d.name}
          </MenuItem>
        ))}
        {others.length > 0 && <MenuRule />}
        <MenuItem
          disabled={save !== "saved"}
          onSelect={() => {
            setAsking("copy");
          }}
        >
          <Copy size={13} aria-hidden /> Copy to an alternative…
        </MenuItem>
        <MenuItem
          onSelect={() => {
            setAsking("rename");
          }}
        >
          <Pencil size={13} aria-hidden /> Rename…
        </MenuItem>
        <MenuItem
          disabled={others.length === 0}
          onSelect={() => {
            setAsking("delete");
          }}
        >
          <Trash2 size={13} aria-hidden /> Delete…
        </MenuItem>
        <MenuRule />
        <MenuItem
          onSelect={() => {
            setSigning(true);
          }}
        >
          <Stamp size={13} aria-hidden /> Sign-off…
        </MenuItem>
        <MenuItem onSelect={() => void navigate(`/designs/${session.id}/history`)}>
          <History size={13} aria-hidden /> History
        </MenuItem>
      </Menu>
      {people.accounts && (
        <SignOffBadge
          revision={revision}
          saved={save === "saved"}
          open={() => {
            setSigning(true);
          }}
        />
      )}
      {signing && (
        <SignOffDialog
          design={session.id}
          revision={revision}
          saved={save === "saved"}
          close={() => {
            setSigning(false);
          }}
        />
      )}
      {asking && (
        <Ask
          asking={asking}
          name={mine?.name ?? designName}
          next={others[0]?.id ?? null}
          close={() => {
            setAsking(null);
          }}
        />
      )}
    </>
  );
}

/** Whether the newest revision is approved, where people sign. */
function SignOffBadge({ revision, saved, open }: { revision: number; saved: boolean; open: () => void }) {
  const { session } = useBench();
  const { data } = useSignOff(session.id, revision, saved);
  const state = saved ? data?.state : "not approved";
  if (state === undefined) return null;
  return (
    <button
      type="button"
      data-sign-off={state}
      className={`shrink-0 rounded border px-1.5 text-[12px] leading-5 ${state === "approved" ? "border-white/60 font-semibold" : "border-white/25 text-bar-ink/75"} hover:border-white`}
      title="Who checked and approved it, and what changed since"
      onClick={open}
    >
      {SIGN_WORDS[state]}
    </button>
  );
}

function Ask({ asking, name, next, close }: { asking: Asking; name: string; next: number | null; close: () => void }) {
  const { session } = useBench();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [text, setText] = useState(asking === "copy" ? `${name}, alternative` : name);
  const [wrong, setWrong] = useState("");
  const act = async () => {
    try {
      if (asking === "copy") {
        const made = await api.copyDesign(session.id, text);
        void navigate(`/designs/${made.design_id}/depths`);
      } else if (asking === "rename") await api.renameDesign(session.id, text);
      else {
        await api.deleteDesign(session.id);
        void navigate(`/designs/${next}/depths`);
      }
      await client.invalidateQueries({ queryKey: ["designs"] });
      close();
    } catch (error) {
      setWrong(error instanceof api.ProblemError ? error.problem.detail : "The server is not reached.");
    }
  };
  return (
    <Modal open onOpenChange={close} title={TITLES[asking]} width="w-96">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void act();
        }}
      >
        {asking === "delete" ? (
          <p className="text-mute">
            {name} goes to the bin of the list of wells, with every revision of it. The well&apos;s other designs stay.
          </p>
        ) : (
          <input
            className="cell border-rule!"
            aria-label="Name of the design"
            value={text}
            onChange={(event) => {
              setText(event.target.value);
            }}
          />
        )}
        {wrong && (
          <p role="alert" className="mt-1 text-brick">
            {wrong}
          </p>
        )}
        <p className="mt-3 flex gap-2">
          <Button kind="act" type="submit" disabled={asking !== "delete" && text.trim() === ""}>
            {asking === "copy" ? "Copy" : asking === "rename" ? "Rename" : "Delete"}
          </Button>
          <Button onClick={close}>Cancel</Button>
        </p>
      </form>
    </Modal>
  );
}
