import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { day } from "../../ui/time";
import { useTakeBack } from "../../ui/useTakeBack";
import { ExportKit } from "./ExportKit";
import { ImportKit } from "./ImportKit";

/** Kits out of this gate and into it, and what came in before. */
export function Kits({ may, level }: { may: boolean; level: string }) {
  const { t } = useTranslation();
  const { tell } = useTelling();
  const back = useTakeBack();
  const { data } = useQuery({ queryKey: ["kits"], queryFn: () => ask(api.GET("/api/kits")) });
  if (!may) return <p className="quiet">{t("commands.readOnly")}</p>;

  const takeBack = async (number: number) => {
    const done = await back(number);
    if (done) tell(done.left ? t("setup.kits.leftOver", { count: done.left }) : t("setup.kits.backDone"));
  };
  return (
    <div className="kits">
      <h2 className="room-title">{t("setup.parts.kits")}</h2>
      <p>{t("setup.kits.lead")}</p>
      <ImportKit broadcaster={level === "broadcaster"} onTakeBack={(number) => void takeBack(number)} />
      <ExportKit places={data?.places ?? []} />
      {Boolean(data?.taken.length) && (
        <section>
          <h3>{t("setup.kits.before")}</h3>
          {data?.taken.map((batch) => (
            <div key={batch.number} className="batch" data-batch={batch.number}>
              <span>
                <b>{batch.about}</b>{" "}
                <span className="quiet small">
                  {t("setup.kits.by", { who: batch.by, when: day(batch.at), count: batch.count })}
                </span>
              </span>
              {batch.back_by ? (
                <span className="quiet small">{t("setup.kits.isBack", { who: batch.back_by })}</span>
              ) : (
                <Button size="sm" variant="outline-secondary" onClick={() => void takeBack(batch.number)}>
                  {t("setup.kits.back")}
                </Button>
              )}
            </div>
          ))}
        </section>
      )}
    </div>
  );
}
