import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useLive } from "../../ui/useLive";
import { useActs } from "./acts";
import { Panel } from "./Panel";

const SHOWN = 6;

/** Verdicts to be checked again: each is settled as right or wrong. */
export function SecondLooks({ may, onOpen }: { may: boolean; onOpen: (key: string) => void }) {
  const { t } = useTranslation();
  const acts = useActs();
  const looks = useLive((state) => state.parts.looks);
  if (!looks?.length) return null;
  return (
    <Panel name="looks" title={t("bench.looks")} aside={String(looks.length)}>
      {looks.slice(0, SHOWN).map((look) => (
        <div key={`${look.platform} ${look.message}`} className="look" data-look={look.message}>
          <span>
            {look.text === null ? (
              <span className="quiet">{t("bench.gone")}</span>
            ) : (
              <button
                type="button"
                className="link"
                onClick={() => onOpen(`${look.platform} ${look.message}`)}
              >
                <b>{look.name}</b> {look.text}
              </button>
            )}
            <span className="quiet small">
              {t(`bench.lookWhy.${look.why}`, { who: look.by })}
              {look.filter && ` · ${t(`filters.${look.filter}Mark`)}`}
            </span>
          </span>
          {may && (
            <span className="button-row">
              {(["right", "wrong"] as const).map((mark) => (
                <Button
                  key={mark}
                  size="sm"
                  variant="outline-secondary"
                  onClick={() => void acts.settle(look.platform, look.message, mark)}
                >
                  {t(`desk.${mark}`)}
                </Button>
              ))}
            </span>
          )}
        </div>
      ))}
    </Panel>
  );
}
