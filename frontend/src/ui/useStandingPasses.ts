import { useLive, useNow } from "./useLive";

/** Who may pass something now, and the moment (in milliseconds) that this is told at. */
export function useStandingPasses() {
  const passes = useLive((state) => state.parts.passes);
  const now = useNow(1000);
  return { now, standing: passes?.filter((one) => one.until === null || one.until / 1000 > now) ?? [] };
}
