import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Line } from "../../live/types";
import { inWords } from "../../ui/time";
import { canUndo, verdictOf } from "./marks";

/** The lengths of a timeout by hand, in seconds; their place is their key. */
export const LENGTHS = [60, 600, 3600, 86400];

export type LineHandlers = {
  may: (act: string) => boolean;
  /** Whether the lengths of a timeout are offered. */
  timing: boolean;
  onTiming: (timing: boolean) => void;
  onUndo: (line: Line) => void;
  onRemove: (line: Line) => void;
  onTimeOut: (line: Line, seconds: number) => void;
  onBan: (line: Line) => void;
  onCard: (key: string) => void;
};

/** What can be done about the chosen line. */
export function LineActs({ line, handlers }: { line: Line; handlers: LineHandlers }) {
  const { t } = useTranslation();
  const { may, timing } = handlers;
  const act = { size: "sm", variant: "outline-secondary" } as const;
  if (timing && may("timeout"))
    return (
      <div className="acts">
        <span className="quiet">{t("desk.forHowLong")}</span>
        {LENGTHS.map((seconds, place) => (
          <Button key={seconds} {...act} onClick={() => handlers.onTimeOut(line, seconds)}>
            {inWords(t, seconds)} <kbd>{place + 1}</kbd>
          </Button>
        ))}
        <Button {...act} variant="outline-danger" onClick={() => handlers.onBan(line)}>
          {t("desk.ban")}
        </Button>
        <Button {...act} onClick={() => handlers.onTiming(false)}>
          {t("desk.close")}
        </Button>
      </div>
    );
  return (
    <div className="acts">
      {canUndo(line) && may("undo") && (
        <Button {...act} onClick={() => handlers.onUndo(line)}>
          {t("desk.undo")} <kbd>U</kbd>
        </Button>
      )}
      {!canUndo(line) && !line.gatekeeper && may("remove") && (
        <Button {...act} onClick={() => handlers.onRemove(line)}>
          {t("desk.remove")} <kbd>X</kbd>
        </Button>
      )}
      {!line.gatekeeper && may("timeout") && (
        <Button {...act} onClick={() => handlers.onTiming(true)}>
          {t("desk.timeOut")} <kbd>Z</kbd>
        </Button>
      )}
      <Button {...act} onClick={() => handlers.onCard(line.key)}>
        {t(verdictOf(line) ? "desk.why" : "desk.card")} <kbd>{verdictOf(line) ? "Y" : "↵"}</kbd>
      </Button>
    </div>
  );
}
