// JSON pointers into the document: read and change without touching the original.
import type { Change, Design } from "./types";

type Node = Record<string, unknown> | unknown[];

function split(path: string): string[] {
  return path.split("/").slice(1);
}

export function read(document: unknown, path: string): unknown {
  let node: unknown = document;
  for (const key of split(path)) {
    if (node === null || typeof node !== "object") return undefined;
    node = (node as Record<string, unknown>)[key];
  }
  return node;
}

function put(node: unknown, keys: string[], value: unknown): unknown {
  const [key, ...rest] = keys;
  if (key === undefined) return value;
  const copy: Node = Array.isArray(node) ? [...(node as unknown[])] : { ...(node as Record<string, unknown>) };
  const held = copy as Record<string, unknown>;
  held[key] = put(held[key] ?? {}, rest, value);
  return copy;
}

export function change(document: Design, changes: readonly Change[]): Design {
  return changes.reduce<Design>((doc, c) => put(doc, split(c.path), c.value) as Design, document);
}
