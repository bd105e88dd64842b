import { useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import type { Notice } from "../../live/types";
import { useTelling } from "../../ui/Notice";
import { inWords } from "../../ui/time";
import { useLive, useNow } from "../../ui/useLive";
import { Panel } from "./Panel";

/** What the rotas post next, when, or what they still wait for; a rota that is chosen can be paused or hurried. */
export function Notices({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const notices = useLive((state) => state.parts.notices);
  const live = useLive((state) => Boolean(state.parts.stream?.live));
  const now = useNow(1000);
  const [open, setOpen] = useState<string | null>(null);
  return (
    <Panel name="notices" title={t("bench.notices")}>
      {!notices?.length && <p className="quiet">{t("bench.noNotices")}</p>}
      {notices?.map((notice) => (
        <div key={notice.name} className="notice-next" data-rota={notice.name}>
          <button
            type="button"
            className="row-item"
            aria-expanded={open === notice.name}
            onClick={() => setOpen(open === notice.name ? null : notice.name)}
          >
            <span>{notice.name}</span>
            <Waits notice={notice} live={live} now={now} />
          </button>
          {open === notice.name && <Opened notice={notice} may={may} />}
        </div>
      ))}
    </Panel>
  );
}

function Opened({ notice, may }: { notice: Notice; may: boolean }) {
  const { t } = useTranslation();
  const { complain } = useTelling();
  const params = { path: { name: notice.name } };
  const run = (asked: Promise<unknown>) => void asked.catch(complain);
  return (
    <div className="notice-opened">
      {notice.next && <p className="bubble">{notice.next}</p>}
      {may && (
        <span className="button-row">
          <Button
            size="sm"
            variant="outline-secondary"
            onClick={() =>
              run(ask(api.POST("/api/rotas/{name}/pause", { params, body: { paused: !notice.paused } })))
            }
          >
            {t(notice.paused ? "bench.goOnPress" : "bench.pausePress")}
          </Button>
          <Button
            size="sm"
            variant="outline-secondary"
            disabled={notice.paused || !notice.where.length}
            onClick={() => run(ask(api.POST("/api/rotas/{name}/next", { params })))}
          >
            {t("timers.nextNow")}
          </Button>
        </span>
      )}
    </div>
  );
}

function Waits({ notice, live, now }: { notice: Notice; live: boolean; now: number }) {
  const { t } = useTranslation();
  if (!notice.on) return <span className="quiet">{t("bench.off")}</span>;
  if (notice.paused) return <span className="straw">{t("bench.pausedRota")}</span>;
  if (notice.due === null || (!live && !notice.where.length))
    return <span className="quiet">{t("bench.waitsLive")}</span>;
  const left = (notice.due / 1000 - now) / 1000;
  if (left > 0 && notice.lines > 0)
    return (
      <span className="quiet">
        {t("bench.inAndLines", { time: inWords(t, coarse(left)), count: notice.lines })}
      </span>
    );
  if (left > 0) return <span>{t("bench.in", { time: inWords(t, coarse(left)) })}</span>;
  if (notice.lines > 0) return <span className="straw">{t("bench.waits", { count: notice.lines })}</span>;
  const held = notice.held === null ? 0 : (notice.held / 1000 - now) / 1000;
  if (held > 0) return <span>{t("bench.in", { time: inWords(t, coarse(held)) })}</span>;
  return <span>{t("bench.ready")}</span>;
}

/** Whole minutes while there are several left. */
const coarse = (seconds: number) => (seconds > 120 ? Math.ceil(seconds / 60) * 60 : Math.ceil(seconds));
