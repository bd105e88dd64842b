import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { inWords } from "../../ui/time";
import { useLive, useNow } from "../../ui/useLive";
import { useActs } from "./acts";
import { Panel } from "./Panel";

/** One press against a flood: the first panel while it is up or offered, a quiet one at the end otherwise. */
export function Drawbridge({ may, resting = false }: { may: boolean; resting?: boolean }) {
  const { t } = useTranslation();
  const acts = useActs();
  const bridge = useLive((state) => state.parts.bridge);
  const live = useLive((state) => Boolean(state.parts.stream?.live));
  const now = useNow(1000);
  if (!bridge || resting !== (bridge.up === null && !bridge.offered)) return null;
  if (bridge.up !== null) {
    const left = Math.max(0, ((bridge.until ?? 0) / 1000 - now) / 1000);
    return (
      <section className="panel alarm" role="status">
        <div className="row-item">
          <span>
            <b>{t("lintel.bridge")}</b>{" "}
            <span className="quiet">
              {t("bench.bridgeUp", { time: inWords(t, Math.ceil(left)) })},{" "}
              {bridge.by ? t("bench.bridgeBy", { who: bridge.by }) : t("bench.bridgeAuto")}
            </span>
          </span>
          {may && <Button onClick={() => void acts.drawbridge(false)}>{t("bench.lower")}</Button>}
        </div>
        <p className="quiet small">{t("bench.bridgeLead")}</p>
      </section>
    );
  }
  if (bridge.offered)
    return (
      <section className="panel alarm" role="alert">
        <div className="row-item">
          <b>{t(`bench.bridgeOffer.${bridge.why}`)}</b>
          {may && <Button onClick={() => void acts.drawbridge(true)}>{t("bench.raise")}</Button>}
        </div>
        <p className="quiet small">{t("bench.bridgeLead")}</p>
      </section>
    );
  if (!may || !live) return null;
  return (
    <Panel name="bridge" title={t("bench.bridge")}>
      <div className="row-item">
        <span className="quiet small">{t("bench.bridgeLead")}</span>
        <Button size="sm" variant="outline-secondary" onClick={() => void acts.drawbridge(true)}>
          {t("bench.raise")}
        </Button>
      </div>
    </Panel>
  );
}
