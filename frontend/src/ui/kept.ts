/** What was kept in this browser under a key; null where there is nothing, or nothing that can be read. */
export function readKept<T>(key: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as T | null;
  } catch {
    return null;
  }
}
