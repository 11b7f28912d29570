/** An item that is dragged out of the cupboard, and places it can be dropped on. */
import { useState } from "react";
import type { DragEvent } from "react";
import type { Item } from "./queries";

const TYPE = "application/x-coat-peg-item";

export function dragged(event: DragEvent, item: Item): void {
  event.dataTransfer.setData(TYPE, String(item.id));
  event.dataTransfer.setData("text/plain", item.title);
  event.dataTransfer.effectAllowed = "copy";
}

/** The item that was dropped; 0 where something else was. */
export function itemOf(event: DragEvent): number {
  return Number(event.dataTransfer.getData(TYPE));
}

/** What makes an element a place for items; ``over`` while one hangs over it. */
export function useItemDrop(onItem: ((item: number, at: Element) => void) | null) {
  const [over, setOver] = useState(false);
  if (onItem === null) return { over: false, place: {} };
  const place = {
    onDragOver: (event: DragEvent) => {
      if (!event.dataTransfer.types.includes(TYPE)) return;
      event.preventDefault();
      event.dataTransfer.dropEffect = "copy";
      setOver(true);
    },
    onDragLeave: () => setOver(false),
    onDrop: (event: DragEvent) => {
      setOver(false);
      const item = itemOf(event);
      if (!item) return;
      event.preventDefault();
      onItem(item, event.target as Element);
    },
  };
  return { over, place };
}
