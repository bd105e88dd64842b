import { useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { day } from "../../ui/time";

const offsetOf = (seconds: number) =>
  [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60]
    .map((part, place) => (place ? String(part).padStart(2, "0") : String(part)))
    .join(":");

const beginOf = (first: Schemas["MarkerView"] | undefined) => (first ? first.at - first.offset * 1e6 : 0);

/** The markers that were set, newest stream first, and their tables. */
export function Markers() {
  const { t } = useTranslation();
  const { data } = useQuery({
    queryKey: ["markers"],
    queryFn: () => ask(api.GET("/api/stream/markers")),
    refetchInterval: 5000,
  });
  const streams = [...new Set(data?.map((one) => one.stream))].reverse();
  return (
    <>
      <h2 className="room-title">{t("stage.parts.markers")}</h2>
      <p>{t("stage.markers.lead")}</p>
      {data?.length === 0 && <p className="quiet">{t("stage.markers.none")}</p>}
      {data && data.length > 0 && (
        <p>
          <a href="/api/stream/markers.csv" download>
            {t("stage.markers.table")}
          </a>
        </p>
      )}
      {streams.map((stream) => {
        const mine = data?.filter((one) => one.stream === stream) ?? [];
        return (
          <section key={stream} className="mb-3">
            <div className="chosen-head">
              <h3>{t("stage.markers.stream", { when: day(beginOf(mine[0])) })}</h3>
              <a href={`/api/stream/chapters.txt?stream=${stream}`} download>
                {t("stage.markers.chapters")}
              </a>
            </div>
            <table className="plain-table">
              <thead className="visually-hidden">
                <tr>
                  <th>{t("stage.markers.at")}</th>
                  <th>{t("stage.markers.note")}</th>
                  <th>{t("stage.markers.who")}</th>
                </tr>
              </thead>
              <tbody>
                {mine.map((one) => (
                  <tr key={one.at}>
                    <td className="tabular">{offsetOf(one.offset)}</td>
                    <td>{one.note || <span className="quiet">{t("stage.markers.noNote")}</span>}</td>
                    <td className="quiet">{one.by}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        );
      })}
    </>
  );
}
