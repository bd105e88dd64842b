/** The Desk's keys that one may choose, and the rules for choosing them. */
export const USUAL_KEYS = { why: "y", remove: "x", timeOut: "z", pass: "l", undo: "u", gateOnly: "g" };
export type KeyAct = keyof typeof USUAL_KEYS;
export type Keys = Record<KeyAct, string>;

const KEPT = "gentlegate.keys";
const LETTER = /^[a-z]$/;

export type Choice = { keys: Keys } | { problem: "letter" } | { problem: "taken"; by: KeyAct };

/** The keys with another one for an act; a key does one thing, and only a letter can be one. */
export function choose(keys: Keys, act: KeyAct, pressed: string): Choice {
  const key = pressed.toLowerCase();
  if (!LETTER.test(key)) return { problem: "letter" };
  const by = (Object.keys(keys) as KeyAct[]).find((one) => one !== act && keys[one] === key);
  return by ? { problem: "taken", by } : { keys: { ...keys, [act]: key } };
}

/** What was kept, as far as it still makes sense. */
export function readKeys(kept: string | null): Keys {
  let keys: Keys = USUAL_KEYS;
  try {
    for (const [act, key] of Object.entries(JSON.parse(kept ?? "{}") as Record<string, unknown>)) {
      if (!(act in USUAL_KEYS) || typeof key !== "string") continue;
      const chosen = choose(keys, act as KeyAct, key);
      if ("keys" in chosen) keys = chosen.keys;
    }
  } catch {
    return USUAL_KEYS;
  }
  return keys;
}

class ChosenKeys {
  private keys: Keys | null = null;
  private listeners = new Set<() => void>();

  read = (): Keys => {
    this.keys ??= readKeys(localStorage.getItem(KEPT));
    return this.keys;
  };

  set(keys: Keys) {
    this.keys = keys;
    localStorage.setItem(KEPT, JSON.stringify(keys));
    for (const listener of this.listeners) listener();
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };
}

export const chosenKeys = new ChosenKeys();
