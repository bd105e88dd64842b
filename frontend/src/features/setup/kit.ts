import type { Schemas } from "../../api/client";

export type Item = Schemas["KitItem"];
/** New names by old ones, for one item. */
export type Names = Record<string, string>;

/** Section and name of a place: "commands.kiln" → ["commands", "kiln"]. */
export function placed(place: string): [string, string] {
  const dot = place.indexOf(".");
  return dot < 0 ? [place, ""] : [place.slice(0, dot), place.slice(dot + 1)];
}

/** What the broadcaster alone may take in. */
export function isBroadcasters(place: string): boolean {
  return place === "people.leads" || place === "channel.gatekeeper" || place.startsWith("platforms.");
}

/** The items ticked at first: all that is new and clashes with nothing. */
export function firstPicks(items: Item[], broadcaster: boolean): Set<string> {
  return new Set(
    items
      .filter((item) => item.state === "new" && !item.clashes.length)
      .filter((item) => broadcaster || !isBroadcasters(item.place))
      .map((item) => item.place),
  );
}

/** The picks with what they mention, as far as the kit holds it. */
export function withNeeds(picks: Set<string>, items: Item[]): Set<string> {
  const found = new Set(picks);
  const same = (one: string, other: string) => one.toLowerCase() === other.toLowerCase();
  for (const item of items) {
    if (!found.has(item.place)) continue;
    for (const need of item.needs) {
      const needed = items.find((other) => same(other.place, need));
      if (needed && !found.has(needed.place)) {
        found.add(needed.place);
        return withNeeds(found, items);
      }
    }
  }
  return found;
}

/** The items by section, in their order. */
export function bySection<T>(items: T[], place: (item: T) => string): [string, T[]][] {
  const found = new Map<string, T[]>();
  for (const item of items) {
    const [section] = placed(place(item));
    found.set(section, [...(found.get(section) ?? []), item]);
  }
  return [...found];
}
