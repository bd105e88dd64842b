import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { useLive } from "../../ui/useLive";
import { useActs } from "./acts";
import { Panel } from "./Panel";

/** Other bots that answer commands of ours, with what to do about it. */
export function Overlaps({ may, mayChange }: { may: boolean; mayChange: boolean }) {
  const { t } = useTranslation();
  const acts = useActs();
  const overlaps = useLive((state) => state.parts.overlaps);
  const prefix = useLive((state) => state.parts.channel?.prefix) ?? "!";
  if (!overlaps?.length) return null;
  return (
    <Panel name="overlaps" title={t("bench.overlaps")} aside={String(overlaps.length)}>
      {overlaps.map((one) => (
        <div key={`${one.key} ${one.person}`} className="look" data-overlap={one.key}>
          <span>
            {t("bench.overlap", { name: one.name, command: prefix + one.command })}
            <span className="quiet small">{t("bench.overlapDo")}</span>
          </span>
          <span className="button-row">
            {mayChange && (
              <Link
                className="btn btn-sm btn-outline-secondary"
                to={`/commands/${encodeURIComponent(one.key)}`}
              >
                {t("bench.overlapOff")}
              </Link>
            )}
            {may && (
              <Button
                size="sm"
                variant="outline-secondary"
                onClick={() => void acts.overlap(one.key, one.person)}
              >
                {t("bench.overlapSettle")}
              </Button>
            )}
          </span>
        </div>
      ))}
    </Panel>
  );
}
