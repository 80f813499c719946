// Which string a place of the document belongs to: its own, or the one that a stack or a piece stands on.
import type { Session } from "./session";

export function stringOf(session: Session, place: string): number | null {
  const { document } = session.snapshot();
  const [, list, second, third] = place.split("/");
  if (list === "strings" && second !== undefined) return Number(second);
  const stands =
    list === "preventers"
      ? document.preventers[Number(second)]?.string
      : list === "wellhead" && second === "pieces"
        ? document.wellhead.pieces[Number(third)]?.string
        : undefined;
  const at = document.strings.findIndex((s) => s.id === stands);
  return at < 0 ? null : at;
}
