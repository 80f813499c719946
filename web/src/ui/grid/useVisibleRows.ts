// Which rows of a long table are drawn: those in view, and the one that holds the cursor, so that the focus never goes with
// a row that is scrolled away. Short tables are drawn whole.
import type { RefObject } from "react";
import { useEffect, useLayoutEffect, useState } from "react";
import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";

const WHOLE_UP_TO = 150;
const ROW_PX = 21;

export interface VisibleRow {
  index: number;
  /** Room of the rows before it that are not drawn. */
  gapPx: number;
}

function scrollerOf(table: HTMLElement | null): HTMLElement | null {
  let node = table?.parentElement ?? null;
  while (node !== null && !/auto|scroll/.test(getComputedStyle(node).overflowY)) node = node.parentElement;
  return node;
}

export function useVisibleRows(table: RefObject<HTMLTableElement | null>, count: number, cursorRow: number) {
  const long = count > WHOLE_UP_TO;
  const [above, setAbove] = useState(0);
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  useEffect(() => {
    // the table that these rows stand in is known once they have been put into it
    setScroller(long ? scrollerOf(table.current) : null);
  }, [table, long]);
  useLayoutEffect(() => {
    if (scroller === null || table.current === null) return;
    const top = table.current.getBoundingClientRect().top - scroller.getBoundingClientRect().top + scroller.scrollTop;
    setAbove(Math.round(top));
  }, [table, scroller]);
  // eslint-disable-next-line react-hooks/incompatible-library -- its answers are used here and now, and never kept
  const rows = useVirtualizer({
    count: long ? count : 0,
    getScrollElement: () => scroller,
    estimateSize: () => ROW_PX,
    overscan: 12,
    scrollMargin: above,
    rangeExtractor: (range) => [...new Set([...defaultRangeExtractor(range), cursorRow])].sort((a, b) => a - b),
  });
  if (!long) {
    const all = Array.from({ length: count }, (_, index): VisibleRow => ({ index, gapPx: 0 }));
    return { visible: all, afterPx: 0, measure: undefined };
  }
  let reached = above;
  const visible = rows.getVirtualItems().map((item): VisibleRow => {
    const gapPx = Math.max(0, item.start - reached);
    reached = item.end;
    return { index: item.index, gapPx };
  });
  return { visible, afterPx: Math.max(0, rows.getTotalSize() + above - reached), measure: rows.measureElement };
}
