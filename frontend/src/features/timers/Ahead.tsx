import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { day } from "../../ui/time";
import { useLive } from "../../ui/useLive";
import { useRested } from "../../ui/usePreview";
import { type Notice, noticeWords, type Rota } from "./rota";
import { Strip } from "./Strip";

type Props = { all: Schemas["Rotas"]; draft: Rota | null; was: string | null };

/** What will be posted in the next three hours or would have been over a recorded stream, redrawn while one types. */
export function Ahead({ all, draft, was }: Props) {
  const { t } = useTranslation();
  const prefix = useLive((state) => state.parts.channel?.prefix ?? "!");
  const revision = useLive((state) => state.parts.settings);
  const paused = useLive((state) => state.parts.notices?.map((one) => one.paused).join());
  const [pace, setPace] = useState("");
  const [stream, setStream] = useState("");
  const chosen = Number(pace.replace(",", "."));
  const asked = {
    rota: draft,
    was,
    pace: pace.trim() && Number.isFinite(chosen) && chosen >= 0 ? chosen : null,
    stream: stream ? Number(stream) : null,
    hours: 3,
  };
  const rested = useRested(JSON.stringify(asked));
  const { data, error } = useQuery({
    queryKey: ["forecast", rested, revision, paused],
    queryFn: () => ask(api.POST("/api/rotas/forecast", { body: JSON.parse(rested) as typeof asked })),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
    retry: false,
  });
  const noticesOf = (rota: string): Notice[] => {
    if (draft && rota === draft.name) return draft.notices ?? [];
    return (all.rotas.find((one) => one.name === rota)?.rota as Rota | undefined)?.notices ?? [];
  };
  return (
    <section className="ahead" aria-labelledby="ahead-title">
      <div className="ahead-head">
        <h3 id="ahead-title">
          {t(stream ? "ahead.recorded" : data?.live === false ? "ahead.imagined" : "ahead.title")}
        </h3>
        <span className="flex-grow-1" />
        {!stream && (
          <span>
            {t("ahead.at")}{" "}
            <Form.Control
              size="sm"
              className="pace-field"
              inputMode="decimal"
              value={pace}
              placeholder={data ? data.pace.toFixed(data.pace < 10 ? 1 : 0) : ""}
              aria-label={t("ahead.pace")}
              onChange={(event) => setPace(event.target.value)}
              onKeyDown={(event) => event.key === "Enter" && event.preventDefault()}
            />{" "}
            {t("ahead.perMinute")}
          </span>
        )}
        {all.streams.length > 0 && (
          <Form.Select
            size="sm"
            className="w-auto"
            value={stream}
            aria-label={t("ahead.over")}
            onChange={(event) => setStream(event.target.value)}
          >
            <option value="">{t("ahead.next")}</option>
            {all.streams.map((one) => (
              <option key={one.number} value={one.number}>
                {t("ahead.stream", { when: day(one.began) })}
              </option>
            ))}
          </Form.Select>
        )}
      </div>
      {!stream && data && !pace.trim() && (
        <p className="quiet">
          {data.usual_of ? t("ahead.usual", { count: data.usual_of }) : t("ahead.madeUp")}
        </p>
      )}
      {error instanceof Problem && <p className="clay">{error.detail}</p>}
      {data && (
        <>
          <Strip
            data={data}
            chosen={draft?.name ?? null}
            wordsOf={(rota, place) => noticeWords(noticesOf(rota)[place], prefix)}
          />
          <ul className="remarks">
            {data.remarks.map((remark) => (
              <li
                key={`${remark.what} ${remark.rota}`}
                className={remark.what === "few lines" ? "quiet" : "straw"}
              >
                {t(`ahead.remarks.${remark.what.replaceAll(" ", "_")}`, {
                  rota: remark.rota,
                  ...remark.values,
                })}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
