import { useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Cooldown } from "../../live/types";
import { inWords } from "../../ui/time";
import { useLive, useNow } from "../../ui/useLive";
import { useActs } from "./acts";
import { Panel } from "./Panel";

const SHOWN = 6;

/** Every cooldown that runs, soonest over first, each with a press to clear it. */
export function Cooldowns({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const cooldowns = useLive((state) => state.parts.cooldowns);
  const now = useNow(250);
  const [all, setAll] = useState(false);
  const running = cooldowns?.filter((one) => one.until === null || one.until / 1000 > now) ?? [];
  return (
    <Panel name="cooldowns" title={t("bench.running")}>
      {!running.length && <p className="quiet">{t("bench.noRunning")}</p>}
      {(all ? running : running.slice(0, SHOWN)).map((one) => (
        <CooldownRow key={`${one.key} ${one.identity}`} cooldown={one} now={now} may={may} />
      ))}
      {running.length > SHOWN && !all && (
        <Button variant="link" size="sm" className="p-0" onClick={() => setAll(true)}>
          {t("bench.moreCooldowns", { count: running.length - SHOWN })}
        </Button>
      )}
    </Panel>
  );
}

function CooldownRow({ cooldown, now, may }: { cooldown: Cooldown; now: number; may: boolean }) {
  const { t } = useTranslation();
  const acts = useActs();
  const prefix = useLive((state) => state.parts.channel?.prefix ?? "!");
  const { began, until } = cooldown;
  const left = until === null ? null : Math.max(0, (until / 1000 - now) / 1000);
  return (
    <div className="row-item cooldown" data-command={cooldown.command}>
      <span>
        <b>
          {cooldown.key.startsWith("~") ? "" : prefix}
          {cooldown.command}
        </b>{" "}
        <span className="quiet">{cooldown.who ?? t("bench.everyone")}</span>
      </span>
      <span className="left">
        {left !== null && until !== null && (
          <progress max={(until - began) / 1e6} value={left} aria-label={cooldown.command} />
        )}
        <span className="time">{left === null ? t("bench.untilStream") : inWords(t, Math.ceil(left))}</span>
        {may && (
          <Button
            size="sm"
            variant="outline-secondary"
            onClick={() => void acts.clear(cooldown.key, cooldown.identity)}
          >
            {t("bench.clear")}
          </Button>
        )}
      </span>
    </div>
  );
}
