import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem } from "../../api/client";
import type { Exempt, Reason } from "../../live/types";
import { exemptWords, reasonWords } from "../../ui/findings";
import { MarkedText } from "../../ui/MarkedText";
import type { Values } from "./fields";

const LEVELS = ["everyone", "follower", "regular", "subscriber", "vip", "moderator"];
type Tried = { outcome: string; reasons: Reason[]; exempt: Exempt[] };

/** A line through the real judge, with unsaved settings; touches nothing. */
export function TryLine({ filter, changes, stamp }: { filter: string; changes: Values; stamp: unknown }) {
  const { t } = useTranslation();
  const [text, setText] = useState("");
  const [level, setLevel] = useState("everyone");
  const [fresh, setFresh] = useState(false);
  const action = filter === "actions";
  const { data, error } = useQuery({
    queryKey: ["try", filter, text, level, fresh, changes, stamp],
    queryFn: () =>
      ask(
        api.POST("/api/rules/try", {
          body: { text, level, new: fresh, action, filters: { [filter]: changes } },
        }),
      ),
    enabled: text.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
  const verdict = text.trim() ? (data?.verdict as Tried | undefined) : undefined;
  return (
    <div className="try-line">
      <h3>{t("rules.try")}</h3>
      <div className="try-fields">
        <Form.Control
          value={text}
          placeholder={t("rules.tryPlaceholder")}
          aria-label={t("rules.try")}
          onChange={(event) => setText(event.target.value)}
        />
        <Form.Select
          className="w-auto"
          aria-label={t("rules.as")}
          value={level}
          onChange={(event) => setLevel(event.target.value)}
        >
          {LEVELS.map((one) => (
            <option key={one} value={one}>
              {t("rules.as")} {t(`levels.${one}`)}
            </option>
          ))}
        </Form.Select>
        <Form.Check
          id="try-new"
          label={t("rules.new")}
          checked={fresh}
          onChange={(event) => setFresh(event.target.checked)}
        />
      </div>
      <Form.Text>{t("rules.tryHelp")}</Form.Text>
      {error instanceof Problem && <p className="clay">{error.detail}</p>}
      {verdict && (
        <div className="tried" role="status">
          <b className={verdict.outcome === "allow" ? "moss" : "clay"}>
            {t(`rules.tried.${verdict.outcome}`)}
          </b>
          {verdict.reasons.length > 0 && (
            <blockquote>
              <MarkedText text={text} reasons={verdict.reasons} />
            </blockquote>
          )}
          <ul>
            {verdict.reasons.map((reason) => (
              <li key={`${reason.filter}${reason.span}`}>{reasonWords(t, reason)}</li>
            ))}
            {verdict.exempt.map((exempt) => (
              <li key={`${exempt.filter}${exempt.by}`}>{exemptWords(t, exempt)}</li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
