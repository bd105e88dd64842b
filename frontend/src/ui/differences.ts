export type Difference = { field: string; left: string; right: string };

/** How a field's value is said. */
export type Say = (field: string, value: unknown) => string;

/** The top-level fields in which two settings differ, as they are written. */
export function differences(
  left: unknown,
  right: unknown,
  say: Say = (_, value) => written(value),
): Difference[] {
  const [one, other] = [fieldsOf(left), fieldsOf(right)];
  const fields = [...new Set([...Object.keys(one), ...Object.keys(other)])];
  return fields
    .map((field) => ({ field, left: say(field, one[field]), right: say(field, other[field]) }))
    .filter((row) => row.left !== row.right);
}

/** Mine, with these fields as they have them. */
export function mixOf(mine: unknown, theirs: unknown, taken: string[]): Record<string, unknown> {
  const [one, other] = [fieldsOf(mine), fieldsOf(theirs)];
  const mix = { ...one };
  for (const field of taken)
    if (field in other) mix[field] = other[field];
    else delete mix[field];
  return mix;
}

function fieldsOf(value: unknown): Record<string, unknown> {
  if (value === null || value === undefined) return {};
  if (typeof value === "object" && !Array.isArray(value)) return value as Record<string, unknown>;
  return { "": value };
}

export function written(value: unknown): string {
  if (value === null || value === undefined) return "";
  if (Array.isArray(value)) return value.map(written).join("\n");
  if (typeof value === "object")
    return Object.entries(value)
      .map(([key, one]) => `${key}: ${written(one)}`)
      .join(", ");
  return String(value);
}
