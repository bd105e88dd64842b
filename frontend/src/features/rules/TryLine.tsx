import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem } from "../../api/client";
import { reasonWords } from "../../ui/findings";
import type { Tried, Values } from "./findings";

const LEVELS = ["everyone", "follower", "regular", "subscriber", "vip", "moderator"];

/** A line through the real judge, with unsaved settings; touches nothing. */
export function TryLine({ filter, changes }: { filter: string; changes: Values }) {
  const { t } = useTranslation();
  const [text, setText] = useState("");
  const [level, setLevel] = useState("everyone");
  const { data, error } = useQuery({
    queryKey: ["try", filter, text, level, changes],
    queryFn: () => ask(api.POST("/api/rules/try", { body: { text, level, filters: { [filter]: changes } } })),
    enabled: text.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
  const verdict = text.trim() ? (data?.verdict as Tried | undefined) : undefined;
  return (
    <div className="try-line">
      <h3>{t("rules.try")}</h3>
      <div className="d-flex gap-2">
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
      </div>
      <Form.Text>{t("rules.tryHelp")}</Form.Text>
      {error instanceof Problem && <p className="clay">{error.detail}</p>}
      {verdict && (
        <div className="tried" role="status">
          <b className={verdict.outcome === "allow" ? "moss" : "clay"}>
            {t(`rules.tried.${verdict.outcome}`)}
          </b>
          <ul>
            {verdict.reasons.map((reason) => (
              <li key={`${reason.filter}${reason.span}`}>{reasonWords(t, reason)}</li>
            ))}
            {verdict.exempt.map((exempt) => (
              <li key={`${exempt.filter}${exempt.by}`}>
                {t("why.exempt", {
                  filter: t(`filters.${exempt.filter}`),
                  why: t(`marks.exempt.${exempt.by}`),
                })}
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
