import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../api/client";
import { clock } from "../../ui/time";

type Props = {
  data: Schemas["ForecastView"];
  chosen: string | null;
  wordsOf: (rota: string, notice: number) => string;
};

const MOST_TICKS = 7;
const STEPS = [5, 10, 15, 30, 60, 120, 240].map((minutes) => minutes * 60_000_000);

/** The moments at which the time is written over the strip, on whole steps of the clock. */
export function ticksOf(begin: number, until: number): number[] {
  const step = STEPS.find((one) => (until - begin) / one <= MOST_TICKS) ?? 480 * 60_000_000;
  const first = Math.ceil(begin / step) * step;
  return Array.from(
    { length: Math.max(0, Math.floor((until - first) / step) + 1) },
    (_, n) => first + n * step,
  );
}

/** A row for each rota, a mark for each post; the mark that is pointed at says what it is. */
export function Strip({ data, chosen, wordsOf }: Props) {
  const { t } = useTranslation();
  const [at, setAt] = useState<{ rota: string; at: number; notice: number } | null>(null);
  const { begin, until } = data;
  const place = (moment: number) => `${((moment - begin) / (until - begin)) * 100}%`;
  const rows = [...data.rows].sort((a, b) => Number(b.rota === chosen) - Number(a.rota === chosen));
  return (
    <div className="strip">
      <div className="strip-times" aria-hidden="true">
        {ticksOf(begin, until).map((moment) => (
          <span key={moment} style={{ left: place(moment) }}>
            {clock(moment)}
          </span>
        ))}
      </div>
      {rows.map((row) => (
        <div
          key={row.rota}
          className={`strip-row ${row.rota === chosen ? "chosen-rota" : ""}`}
          data-rota={row.rota}
        >
          <b title={row.rota}>{row.rota}</b>
          <div className="strip-track">
            {row.posts.map((post) => {
              const label = t("ahead.post", { time: clock(post.at), words: wordsOf(row.rota, post.notice) });
              const tell = () => setAt({ rota: row.rota, at: post.at, notice: post.notice });
              return (
                <button
                  type="button"
                  key={post.at}
                  className="post"
                  style={{ left: place(post.at) }}
                  aria-label={label}
                  title={label}
                  onFocus={tell}
                  onMouseEnter={tell}
                  onClick={tell}
                />
              );
            })}
          </div>
          <span className="quiet strip-count">{t("ahead.posts", { count: row.posts.length })}</span>
        </div>
      ))}
      {rows.length === 0 && <p className="quiet">{t("ahead.nothing")}</p>}
      <p className="strip-said" aria-live="polite">
        {at ? (
          <>
            <b>{clock(at.at)}</b> {at.rota}: {wordsOf(at.rota, at.notice)}
          </>
        ) : (
          <span className="quiet">{rows.some((row) => row.posts.length) ? t("ahead.point") : ""}</span>
        )}
      </p>
    </div>
  );
}
