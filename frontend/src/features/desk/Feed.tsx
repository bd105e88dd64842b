import { useVirtualizer } from "@tanstack/react-virtual";
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Line } from "../../live/types";
import type { LineHandlers } from "./LineActs";
import { LineRow } from "./LineRow";
import { useHeld } from "./useHeld";

type Props = {
  lines: Line[];
  chosen: string | null;
  handlers: LineHandlers;
  emptyWords: string;
  /** Grows with each wish to go back to the newest line. */
  newest: number;
  onChoose: (key: string | null) => void;
};

/** The chat: newest at the foot; holds still while someone reads back, points at a line or has chosen one. */
export function Feed({ lines, chosen, handlers, emptyWords, newest, onChoose }: Props) {
  const { t } = useTranslation();
  const box = useRef<HTMLDivElement>(null);
  const [atFoot, setAtFoot] = useState(true);
  const [pointing, setPointing] = useState(false);
  const held = !atFoot || pointing || chosen !== null;
  const { shown, waiting } = useHeld(lines, held);
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => 30,
    getItemKey: (index) => shown[index]?.key ?? index,
    overscan: 12,
  });

  const toFoot = useCallback(() => {
    const element = box.current;
    if (element) element.scrollTop = element.scrollHeight;
  }, []);

  const total = rows.getTotalSize();
  // biome-ignore lint/correctness/useExhaustiveDependencies: follow the foot whenever the feed grows
  useLayoutEffect(() => {
    if (!held) toFoot();
  }, [held, total, shown.length, toFoot]);

  useEffect(() => {
    const place = chosen ? shown.findIndex((line) => line.key === chosen) : -1;
    if (place >= 0) rows.scrollToIndex(place, { align: "auto" });
  }, [chosen, shown, rows]);

  const release = useCallback(() => {
    setPointing(false);
    setAtFoot(true);
    requestAnimationFrame(toFoot);
  }, [toFoot]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each wish counts, also a repeated one
  useEffect(release, [newest, release]);

  const back = () => {
    onChoose(null);
    release();
  };

  return (
    <div className="feed-frame">
      <section
        className="feed"
        ref={box}
        aria-label={t("desk.chat")}
        tabIndex={0}
        onScroll={(event) => {
          const element = event.currentTarget;
          setAtFoot(element.scrollHeight - element.scrollTop - element.clientHeight < 40);
        }}
        onPointerEnter={(event) => event.pointerType === "mouse" && setPointing(true)}
        onPointerLeave={() => setPointing(false)}
      >
        {shown.length === 0 && <p className="empty">{emptyWords}</p>}
        <div className="rows" style={{ height: total }}>
          {rows.getVirtualItems().map((row) => {
            const line = shown[row.index];
            return (
              line && (
                <div
                  key={row.key}
                  ref={rows.measureElement}
                  data-index={row.index}
                  className="row-place"
                  style={{ transform: `translateY(${row.start}px)` }}
                >
                  <LineRow line={line} chosen={line.key === chosen} handlers={handlers} onChoose={onChoose} />
                </div>
              )
            );
          })}
        </div>
      </section>
      {waiting > 0 && (
        <Button className="waiting" size="sm" onClick={back}>
          {t("desk.waiting", { count: waiting })}
        </Button>
      )}
    </div>
  );
}
