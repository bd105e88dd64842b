import { useLive } from "./useLive";

/** The names of the connected platforms. */
export function usePlatforms(): string[] {
  const names = useLive((state) => state.parts.stream?.platforms.map((one) => one.name).join() ?? "");
  return names.split(",").filter(Boolean);
}
