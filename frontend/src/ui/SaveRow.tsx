import type { ReactNode } from "react";
import { Alert, Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { SideBySide } from "./SideBySide";

type Props = {
  dirty: boolean;
  problem: string | null;
  mine: unknown;
  /** What somebody else has saved meanwhile. */
  theirs: unknown;
  onKeepMine: () => void;
  onDiscard: () => void;
  /** Discarding what was typed, unless taking theirs is something else. */
  onTakeTheirs?: () => void;
  may: boolean;
  children?: ReactNode;
};

/** The end of a form: what is wrong with the whole, both versions where two saved, and the presses. */
export function SaveRow({ dirty, problem, mine, theirs, may, children, ...on }: Props) {
  const { t } = useTranslation();
  return (
    <>
      {problem && <Alert variant="danger">{problem}</Alert>}
      {Boolean(theirs) && (
        <Alert variant="warning">
          <p>{t("commands.theirs")}</p>
          <SideBySide left={t("commands.mine")} right={t("commands.other")} one={mine} other={theirs} />
          <div className="d-flex gap-2">
            <Button size="sm" onClick={on.onKeepMine}>
              {t("commands.keepMine")}
            </Button>
            <Button size="sm" variant="outline-secondary" onClick={on.onTakeTheirs ?? on.onDiscard}>
              {t("commands.takeTheirs")}
            </Button>
          </div>
        </Alert>
      )}
      {may && (
        <div className="d-flex gap-2 save-row">
          <Button type="submit" disabled={!dirty}>
            {t("commands.save")}
          </Button>
          {dirty && (
            <Button variant="outline-secondary" onClick={on.onDiscard}>
              {t("commands.discard")}
            </Button>
          )}
          {children && <span className="flex-grow-1" />}
          {children}
        </div>
      )}
    </>
  );
}
