import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { PASSES } from "../../ui/passes";
import { inWords, secondsOf } from "../../ui/time";
import { usePersonActs } from "./personActs";

const TIMEOUTS = [60, 600, 3600];

type Props = { person: string; name: string; may: (act: string) => boolean };

/** What can be done about a person: a pass, a timeout of any length, a ban, and their end. */
export function PersonActs({ person, name, may }: Props) {
  const { t } = useTranslation();
  const acts = usePersonActs(person, name);
  const [own, setOwn] = useState("");
  const [bad, setBad] = useState(false);
  const small = { size: "sm", variant: "outline-secondary" } as const;
  const timeOut = () => {
    const seconds = secondsOf(own);
    setBad(seconds === null);
    if (seconds !== null) void acts.timeOut(seconds).then((done) => done && setOwn(""));
  };
  return (
    <div className="person-acts">
      <h3>{t("desk.person")}</h3>
      {may("pass") && (
        <div className="row-item">
          <span>{t("desk.passFor")}</span>
          <span className="button-row">
            {PASSES.map((length) => (
              <Button key={length} {...small} onClick={() => void acts.pass(length)}>
                {length === "stream" ? t("desk.untilStream") : inWords(t, secondsOf(length) ?? 0)}
              </Button>
            ))}
          </span>
        </div>
      )}
      {may("timeout") && (
        <form
          className="row-item"
          onSubmit={(event) => {
            event.preventDefault();
            timeOut();
          }}
        >
          <span>{t("desk.timeOut")}</span>
          <span className="button-row">
            {TIMEOUTS.map((seconds) => (
              <Button key={seconds} {...small} onClick={() => void acts.timeOut(seconds)}>
                {inWords(t, seconds)}
              </Button>
            ))}
            <Form.Control
              size="sm"
              className="own-length"
              value={own}
              isInvalid={bad}
              aria-label={t("desk.ownLength")}
              placeholder="5m"
              title={t("desk.ownLengthHelp")}
              onChange={(event) => setOwn(event.target.value)}
            />
          </span>
        </form>
      )}
      {bad && <p className="clay small">{t("desk.badLength")}</p>}
      {may("arrivals") && (
        <div className="row-item">
          <span>{t("desk.arrival")}</span>
          <Button {...small} onClick={() => void acts.forgetArrival()}>
            {t("desk.forgetArrival")}
          </Button>
        </div>
      )}
      {(may("ban") || may("lift")) && (
        <div className="row-item">
          <span>{t("desk.everywhere")}</span>
          <span className="button-row">
            {may("ban") && (
              <Button size="sm" variant="outline-danger" onClick={() => void acts.ban()}>
                {t("desk.ban")}
              </Button>
            )}
            {may("lift") && (
              <Button {...small} onClick={() => void acts.lift()}>
                {t("desk.lift")}
              </Button>
            )}
          </span>
        </div>
      )}
    </div>
  );
}
