import type { ReactNode } from "react";
import type { Reason } from "../live/types";

/** A text with the pieces that the reasons are about marked. Spans count code points. */
export function MarkedText({ text, reasons }: { text: string; reasons: Reason[] }) {
  const spans = reasons.flatMap((reason) => (reason.span ? [reason.span] : [])).sort((a, b) => a[0] - b[0]);
  if (!spans.length) return <>{text}</>;
  const signs = [...text];
  const pieces: ReactNode[] = [];
  let at = 0;
  for (const [start, end] of spans) {
    if (start < at) continue;
    pieces.push(signs.slice(at, start).join(""));
    pieces.push(<mark key={start}>{signs.slice(start, end).join("")}</mark>);
    at = end;
  }
  pieces.push(signs.slice(at).join(""));
  return <>{pieces}</>;
}
