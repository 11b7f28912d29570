/** A view whose part of the application is loaded when it is first opened. */
import { lazy, useState } from "react";
import type { ComponentType } from "react";

export interface Opened {
  View: ComponentType;
  /** Load it ahead: then it stands in the same moment in which it is opened. */
  load: () => Promise<unknown>;
}

export function opened(load: () => Promise<ComponentType>): Opened {
  let there: ComponentType | null = null;
  const loaded = async () => {
    there = await load();
    return { default: there };
  };
  const Later = lazy(loaded);
  function View() {
    const [Is] = useState(() => there ?? Later);
    return <Is />;
  }
  return { View, load: loaded };
}
