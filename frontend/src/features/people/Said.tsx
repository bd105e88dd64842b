import { useState } from "react";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { when } from "../../ui/time";

type Page = Schemas["SaidPage"];
type Props = { person: string; page: Page | undefined; most: number; count: number };

/** What somebody wrote in this and earlier streams, newest first, and what became of each line. */
export function Said({ person, page, most, count }: Props) {
  const { t } = useTranslation();
  const { complain } = useTelling();
  const [earlier, setEarlier] = useState<Page[]>([]);
  if (!page) return null;
  const last = earlier.at(-1) ?? page;
  const lines = [page, ...earlier].flatMap((one) => one.messages).slice(0, earlier.length ? undefined : most);
  const more = async () => {
    try {
      const query = { before: last.more };
      const asked = api.GET("/api/people/card/{person}/messages", { params: { path: { person }, query } });
      const next = await ask(asked);
      setEarlier((before) => [...before, next]);
    } catch (error) {
      complain(error);
    }
  };
  return (
    <section>
      <h3>{t("people.said", { count })}</h3>
      <ul className="said">
        {lines.map((one) => (
          <li key={one.number}>
            <time className="quiet">{when(one.at)}</time>{" "}
            <b className="tile" title={t(`platforms.${one.platform}`, { defaultValue: one.platform })}>
              {one.platform.slice(0, 1).toUpperCase()}
            </b>{" "}
            <span className={one.outcome && !one.undone ? "stopped" : ""}>{one.text}</span>
            {one.outcome && (
              <span className={`word ${one.undone ? "quiet" : "clay"}`}>
                {" "}
                {t(`people.acts.${one.outcome}`, { defaultValue: one.outcome, time: "" })}
                {one.filter && ` · ${t(`filters.${one.filter}Mark`)}`}
                {one.by && ` · ${one.by}`}
                {one.undone && ` · ${t("people.undone")}`}
              </span>
            )}
          </li>
        ))}
      </ul>
      {most >= lines.length && last.more !== null && (
        <Button size="sm" variant="outline-secondary" onClick={() => void more()}>
          {t("people.earlier")}
        </Button>
      )}
    </section>
  );
}
