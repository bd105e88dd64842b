import { useEffect, useSyncExternalStore } from "react";
import { type Unsaved, unsaved } from "../live/unsaved";

/** Every change that is not saved yet. */
export function useUnsaved(): Unsaved[] {
  return useSyncExternalStore(unsaved.subscribe, unsaved.read);
}

/** Lets the try-out know what this editor holds. */
export function useHoldUnsaved(editor: string, changes: Unsaved[]) {
  const written = JSON.stringify(changes);
  useEffect(() => {
    unsaved.hold(editor, JSON.parse(written) as Unsaved[]);
    return () => unsaved.hold(editor, []);
  }, [editor, written]);
}
