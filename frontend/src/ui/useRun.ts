import { useCallback } from "react";
import { useTelling } from "./Notice";

/** Runs an act: says that it was done, or what went wrong; gives whether it was done. */
export function useRun() {
  const { tell, complain } = useTelling();
  return useCallback(
    async (asked: Promise<unknown>, said?: string): Promise<boolean> => {
      try {
        await asked;
        if (said) tell(said);
        return true;
      } catch (error) {
        complain(error);
        return false;
      }
    },
    [tell, complain],
  );
}
