import { useSyncExternalStore } from "react";
import { chosenKeys, type Keys } from "./keys";

/** The Desk's keys as they were chosen in this browser. */
export function useKeys(): Keys {
  return useSyncExternalStore(chosenKeys.subscribe, chosenKeys.read);
}
