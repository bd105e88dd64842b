/** What a limit catches of measures, and how they are spread: plain reckoning beside the histogram. */

export type Bar = { from: number; to: number; others: number; regulars: number };

/** How many of the measures (largest first) are caught at a limit. */
export function caughtBy(measures: readonly number[], limit: number, reached: boolean): number {
  let low = 0;
  let high = measures.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    const value = measures[middle] ?? 0;
    if (reached ? value >= limit : value > limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The far end of the axis: room for the limit and for nearly all measures. */
export function axisEnd(measures: readonly number[], limit: number, isShare: boolean): number {
  if (isShare) return 1;
  return Math.max(10, Math.ceil(limit * 1.5), Math.ceil((measures[0] ?? 0) * 1.05));
}

/** The measures in bars of equal width from 0 to `end`. */
export function spread(
  others: readonly number[],
  regulars: readonly number[],
  end: number,
  isShare: boolean,
): Bar[] {
  const most = isShare ? 25 : Math.min(40, Math.ceil(end));
  const width = isShare ? end / most : Math.ceil(end / most);
  const bars: Bar[] = Array.from({ length: Math.ceil(end / width) }, (_, place) => ({
    from: place * width,
    to: (place + 1) * width,
    others: 0,
    regulars: 0,
  }));
  const put = (value: number, who: "others" | "regulars") => {
    const place = Math.min(bars.length - 1, Math.max(0, Math.floor(value / width - 1e-9)));
    const bar = bars[place];
    if (bar) bar[who] += 1;
  };
  for (const value of others) put(value, "others");
  for (const value of regulars) put(value, "regulars");
  return bars;
}

export type Same<T> = { line: T; times: number };

/** Lines with the same text told once, with how often they were said. */
export function told<T extends { text: string; measured?: number | null }>(lines: readonly T[]): Same<T>[] {
  const found = new Map<string, Same<T>>();
  for (const line of lines) {
    const same = found.get(line.text);
    if (same) same.times += 1;
    else found.set(line.text, { line, times: 1 });
  }
  return [...found.values()];
}
