import { useEffect, useState, useSyncExternalStore } from "react";
import type { LiveState } from "../live/reducer";
import { live } from "../live/store";

/** A piece of the live state; the page follows it. The piece must be steady while nothing changed. */
export function useLive<T>(pick: (state: LiveState) => T): T {
  return useSyncExternalStore(live.subscribe, () => pick(live.get()));
}

/** The server's time in milliseconds, looked at again every `every` milliseconds. */
export function useNow(every = 1000): number {
  const read = () => Date.now() + live.get().offset;
  const [now, setNow] = useState(read);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now() + live.get().offset), every);
    return () => clearInterval(timer);
  }, [every]);
  return now;
}
