import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { inWords } from "../../ui/time";
import { useStandingPasses } from "../../ui/useStandingPasses";
import { useActs } from "./acts";
import { Panel } from "./Panel";

/** Who may do what for a while; nothing is shown while nobody has a pass. */
export function Passes({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const acts = useActs();
  const { now, standing } = useStandingPasses();
  if (!standing.length) return null;
  return (
    <Panel name="passes" title={t("bench.passes")}>
      {standing.map((one) => (
        <div key={one.person} className="row-item" data-pass={one.name}>
          <span>
            <b>{one.name}</b>{" "}
            <span className="quiet">
              {t("bench.passBy", {
                filters: one.filters.map((key) => t(`filters.${key}`)).join(", "),
                who: one.by,
              })}
            </span>
          </span>
          <span className="left">
            {one.until === null
              ? t("marks.passedStream")
              : inWords(t, Math.ceil((one.until / 1000 - now) / 1000))}{" "}
            {may && (
              <Button size="sm" variant="outline-secondary" onClick={() => void acts.endPass(one.person)}>
                {t("bench.endPass")}
              </Button>
            )}
          </span>
        </div>
      ))}
    </Panel>
  );
}
