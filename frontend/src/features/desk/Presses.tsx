import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { PlatformState } from "../../live/types";
import { inWords } from "../../ui/time";
import { useLive } from "../../ui/useLive";
import { Panel } from "./Panel";
import { useStreamActs } from "./streamActs";

const PRESSES = ["marker", "clip", "ad", "shoutout", "raid", "arrivals"] as const;
type Press = (typeof PRESSES)[number];
const LEAST_OFFLINE: Press[] = ["shoutout", "arrivals"];

/** One press each for what a broadcaster cannot do with clay on the hands. */
export function Presses({ may }: { may: (act: string) => boolean }) {
  const { t } = useTranslation();
  const acts = useStreamActs();
  const platforms = useLive((state) => state.parts.stream?.platforms) ?? [];
  const [open, setOpen] = useState<Press | null>(null);
  const live = platforms.filter((platform) => platform.live);
  const can: Record<Press, PlatformState[]> = {
    marker: live,
    clip: live.filter((platform) => platform.can.clip),
    ad: live.filter((platform) => platform.can.ads.length > 0),
    shoutout: live.length ? live : platforms,
    raid: live.filter((platform) => platform.can.raid),
    arrivals: platforms,
  };
  const offered = PRESSES.filter((press) => may(press));
  if (!offered.length) return null;
  const press = (one: Press) => {
    if (one === "clip") void acts.clip();
    else setOpen(open === one ? null : one);
  };
  const close = (done: boolean) => done && setOpen(null);
  const reason = (one: Press) =>
    can[one].length ? undefined : t(live.length ? "presses.noneCan" : "presses.notLive");
  return (
    <Panel name="presses" title={t("presses.title")}>
      <div className="presses">
        {offered.map((one) => (
          <Button
            key={one}
            size="sm"
            variant={open === one ? "primary" : "outline-secondary"}
            aria-expanded={one === "clip" ? undefined : open === one}
            disabled={!can[one].length && !LEAST_OFFLINE.includes(one)}
            title={reason(one)}
            onClick={() => press(one)}
          >
            {t(`presses.${one}`)}
          </Button>
        ))}
      </div>
      {open === "marker" && (
        <OneLine
          label={t("presses.note")}
          go={t("presses.markNow")}
          optional
          onGo={(note) => void acts.mark(note).then(close)}
        />
      )}
      {open === "ad" && (
        <div className="press-body">
          {can.ad.map((platform) => (
            <div key={platform.name} className="row-item">
              <span>{t(`platforms.${platform.name}`, { defaultValue: platform.name })}</span>
              <span className="button-row">
                {platform.can.ads.map((seconds) => (
                  <Button
                    key={seconds}
                    size="sm"
                    variant="outline-secondary"
                    disabled={platform.ad !== null}
                    onClick={() => void acts.startAd(platform.name, seconds).then(close)}
                  >
                    {inWords(t, seconds)}
                  </Button>
                ))}
              </span>
            </div>
          ))}
        </div>
      )}
      {(open === "shoutout" || open === "raid") && (
        <OneLine
          key={open}
          label={t(`presses.${open}Whom`)}
          go={t(`presses.${open}Go`)}
          platforms={can[open]}
          onGo={(name, platform) =>
            void (open === "raid" ? acts.raid(name, platform) : acts.shoutOut(name, platform)).then(close)
          }
        />
      )}
      {open === "arrivals" && (
        <div className="press-body">
          <p className="quiet">{t("presses.arrivalsHelp")}</p>
          <Button size="sm" onClick={() => void acts.forgetArrivals(null).then(close)}>
            {t("presses.forgetAll")}
          </Button>
        </div>
      )}
    </Panel>
  );
}

type OneLineProps = {
  label: string;
  go: string;
  optional?: boolean;
  platforms?: PlatformState[];
  onGo: (text: string, platform: string) => void;
};

/** One field and the press that sends it, on the platform chosen where there are several. */
function OneLine({ label, go, optional = false, platforms = [], onGo }: OneLineProps) {
  const { t } = useTranslation();
  const [text, setText] = useState("");
  const [platform, setPlatform] = useState(platforms[0]?.name ?? "");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (optional || text.trim()) onGo(text.trim(), platform);
  };
  return (
    <Form className="press-body one-line" onSubmit={submit}>
      <Form.Control
        autoFocus
        value={text}
        placeholder={label}
        aria-label={label}
        onChange={(event) => setText(event.target.value)}
      />
      {platforms.length > 1 && (
        <Form.Select
          value={platform}
          aria-label={t("presses.where")}
          onChange={(event) => setPlatform(event.target.value)}
        >
          {platforms.map((one) => (
            <option key={one.name} value={one.name}>
              {t(`platforms.${one.name}`, { defaultValue: one.name })}
            </option>
          ))}
        </Form.Select>
      )}
      <Button type="submit" disabled={!optional && !text.trim()}>
        {go}
      </Button>
    </Form>
  );
}
