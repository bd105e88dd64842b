import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Line } from "../../live/types";
import { PASSES } from "../../ui/passes";
import { inWords, secondsOf } from "../../ui/time";
import { canUndo, verdictOf } from "./marks";
import { useKeys } from "./useKeys";

/** The lengths of a timeout by hand, in seconds; their place is their key. */
export const LENGTHS = [60, 600, 3600, 86400];

export type LineHandlers = {
  may: (act: string) => boolean;
  /** Whether the lengths of a timeout are offered. */
  timing: boolean;
  onTiming: (timing: boolean) => void;
  /** Whether the lengths of a pass are offered. */
  passing: boolean;
  onPassing: (passing: boolean) => void;
  onPass: (line: Line, length: string) => void;
  onUndo: (line: Line) => void;
  onRemove: (line: Line) => void;
  onTimeOut: (line: Line, seconds: number) => void;
  onBan: (line: Line) => void;
  onCard: (key: string) => void;
};

/** What can be done about the chosen line. */
export function LineActs({ line, handlers }: { line: Line; handlers: LineHandlers }) {
  const { t } = useTranslation();
  const { may, timing, passing } = handlers;
  const keys = useKeys();
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
  if (passing && may("pass"))
    return (
      <div className="acts">
        <span className="quiet">{t("desk.passFor")}</span>
        {PASSES.map((length, place) => (
          <Button key={length} {...act} onClick={() => handlers.onPass(line, length)}>
            {length === "stream" ? t("desk.untilStream") : inWords(t, secondsOf(length) ?? 0)}{" "}
            <kbd>{place + 1}</kbd>
          </Button>
        ))}
        <Button {...act} onClick={() => handlers.onPassing(false)}>
          {t("desk.close")}
        </Button>
      </div>
    );
  return (
    <div className="acts">
      {canUndo(line) && may("undo") && (
        <Button {...act} onClick={() => handlers.onUndo(line)}>
          {t("desk.undo")} <kbd>{keys.undo.toUpperCase()}</kbd>
        </Button>
      )}
      {!canUndo(line) && !line.gatekeeper && may("remove") && (
        <Button {...act} onClick={() => handlers.onRemove(line)}>
          {t("desk.remove")} <kbd>{keys.remove.toUpperCase()}</kbd>
        </Button>
      )}
      {!line.gatekeeper && may("timeout") && (
        <Button {...act} onClick={() => handlers.onTiming(true)}>
          {t("desk.timeOut")} <kbd>{keys.timeOut.toUpperCase()}</kbd>
        </Button>
      )}
      {!line.gatekeeper && may("pass") && (
        <Button {...act} onClick={() => handlers.onPassing(true)}>
          {t("desk.pass")} <kbd>{keys.pass.toUpperCase()}</kbd>
        </Button>
      )}
      <Button {...act} onClick={() => handlers.onCard(line.key)}>
        {t(verdictOf(line) ? "desk.why" : "desk.card")}{" "}
        <kbd>{verdictOf(line) ? keys.why.toUpperCase() : "↵"}</kbd>
      </Button>
    </div>
  );
}
