import type { ReactNode } from "react";
import { Alert, Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Mix } from "./Mix";

type Props = {
  dirty: boolean;
  problem: string | null;
  mine: unknown;
  /** What somebody else has saved meanwhile. */
  theirs: unknown;
  /** Saves mine, or a mix of both, over theirs. */
  onKeep: (whole: unknown) => void;
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
        <Mix mine={mine} theirs={theirs} onKeep={on.onKeep} onTakeTheirs={on.onTakeTheirs ?? on.onDiscard} />
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
