import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Counter } from "../../live/types";
import { inWords } from "../../ui/time";
import { useLive, useNow } from "../../ui/useLive";
import { useActs } from "./acts";
import { Cooldowns } from "./Cooldowns";
import { Drawbridge } from "./Drawbridge";
import { Notices } from "./Notices";
import { Overlaps } from "./Overlaps";
import { Panel } from "./Panel";
import { Passes } from "./Passes";
import { Presses } from "./Presses";
import { Running } from "./Running";
import { SecondLooks } from "./SecondLooks";
import { StreamPanel } from "./StreamPanel";

/** The Desk's working side. */
export function Bench({ may, onOpen }: { may: (act: string) => boolean; onOpen: (key: string) => void }) {
  return (
    <>
      <Drawbridge may={may("drawbridge")} />
      <Overlaps may={may("overlap")} mayChange={may("commands")} />
      <Running mayCancel={may("cancel_raid")} />
      <StreamPanel may={may} />
      <Presses may={may} />
      <SecondLooks may={may("second_look")} onOpen={onOpen} />
      <Passes may={may("pass")} />
      <Counters may={may("count")} />
      <Notices may={may("rota")} />
      <Cooldowns may={may("clear")} />
      <Drawbridge may={may("drawbridge")} resting />
    </>
  );
}

function Counters({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const counters = useLive((state) => state.parts.counters);
  return (
    <Panel name="counters" title={t("bench.counters")}>
      {!counters?.length && <p className="quiet">{t("bench.noCounters")}</p>}
      {counters?.map((counter) => (
        <CounterRow key={counter.name} counter={counter} may={may} />
      ))}
    </Panel>
  );
}

function CounterRow({ counter, may }: { counter: Counter; may: boolean }) {
  const { t } = useTranslation();
  const acts = useActs();
  const now = useNow(5000);
  const ago = counter.at === null ? 0 : (now - counter.at / 1000) / 1000;
  const when = ago < 60 ? "bench.justNow" : "bench.last";
  const time = inWords(t, Math.floor(ago / 60) * 60);
  const { label } = counter;
  return (
    <div className="counter" data-counter={counter.name}>
      <output aria-label={label}>{counter.value}</output>
      <div className="flex-grow-1">
        {label}
        {counter.by && counter.at !== null && (
          <div className="quiet small">{t(when, { who: counter.by, time })}</div>
        )}
      </div>
      {may && (
        <>
          <span className="stepper">
            <Button
              variant="outline-secondary"
              aria-label={t("bench.less", { label })}
              disabled={counter.lowest !== null && counter.value <= counter.lowest}
              onClick={() => void acts.count(counter.name, "-1")}
            >
              −
            </Button>
            <Button
              variant="outline-secondary"
              aria-label={t("bench.more", { label })}
              onClick={() => void acts.count(counter.name, "+1")}
            >
              +
            </Button>
          </span>
          <Button
            variant="outline-secondary"
            size="sm"
            disabled={!counter.undo}
            onClick={() => void acts.count(counter.name, "undo")}
          >
            {t("bench.undo")}
          </Button>
        </>
      )}
    </div>
  );
}
