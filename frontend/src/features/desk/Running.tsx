import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { inWords } from "../../ui/time";
import { useLive, useNow } from "../../ui/useLive";
import { useStreamActs } from "./streamActs";

/** An armed raid and running ad breaks, with the time they have left; nothing where there is none. */
export function Running({ mayCancel }: { mayCancel: boolean }) {
  const { t } = useTranslation();
  const { cancelRaid } = useStreamActs();
  const raid = useLive((state) => state.parts.raid);
  const platforms = useLive((state) => state.parts.stream?.platforms) ?? [];
  const now = useNow(250);
  const left = (moment: number) => Math.max(0, Math.ceil((moment / 1000 - now) / 1000));
  const ads = platforms.filter((platform) => platform.ad && platform.ad.until / 1000 > now);
  if (!raid && !ads.length) return null;
  const named = (name: string) => t(`platforms.${name}`, { defaultValue: name });
  return (
    <section className="panel running" aria-label={t("running.title")}>
      {raid && (
        <div className="row-item raid-armed" role="status">
          <span>
            <b>{t("running.raid", { name: raid.name, time: inWords(t, left(raid.due)) })}</b>{" "}
            <span className="quiet">
              {t("running.raidBy", { platform: named(raid.platform), who: raid.by })}
            </span>
          </span>
          {mayCancel && (
            <Button variant="danger" onClick={() => void cancelRaid()}>
              {t("running.callOff")}
            </Button>
          )}
        </div>
      )}
      {ads.map((platform) => (
        <div key={platform.name} className="row-item cooldown">
          <span>
            <b>{t("running.ad")}</b> <span className="quiet">{named(platform.name)}</span>
          </span>
          <span className="left">
            <progress
              max={((platform.ad?.until ?? 0) - (platform.ad?.began ?? 0)) / 1e6}
              value={left(platform.ad?.until ?? 0)}
              aria-label={t("running.ad")}
            />
            <span className="time">{inWords(t, left(platform.ad?.until ?? 0))}</span>
          </span>
        </div>
      ))}
    </section>
  );
}
