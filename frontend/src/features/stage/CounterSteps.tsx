import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { day } from "../../ui/time";
import { useLive } from "../../ui/useLive";

const SHOWN = 8;

/** Where a counter stands, its last steps with who made them, and the way back. */
export function CounterSteps({ name, may }: { name: string; may: boolean }) {
  const { t } = useTranslation();
  const { complain } = useTelling();
  const live = useLive((state) => state.parts.counters?.find((one) => one.name === name));
  const { data } = useQuery({
    queryKey: ["steps", name, live?.value, live?.at],
    queryFn: () => ask(api.GET("/api/counters/{name}/steps", { params: { path: { name } } })),
    placeholderData: (before) => before,
  });
  const undo = () =>
    ask(api.POST("/api/desk/count", { body: { name, step: "undo" } })).catch((error) => complain(error));
  return (
    <aside className="counter-steps">
      <h3>{t("stage.counter.now")}</h3>
      <p className="counter-now">
        <output aria-label={t("stage.counter.now")}>{live?.value}</output>
        {may && (
          <Button size="sm" variant="outline-secondary" disabled={!live?.undo} onClick={() => void undo()}>
            {t("bench.undo")}
          </Button>
        )}
      </p>
      <h3>{t("stage.counter.steps")}</h3>
      {data?.length === 0 && <p className="quiet">{t("stage.counter.noSteps")}</p>}
      <table className="plain-table">
        <tbody>
          {data?.slice(0, SHOWN).map((step) => (
            <tr key={`${step.at} ${step.before} ${step.after}`}>
              <td className="tabular">
                {step.before} → <b>{step.after}</b>
              </td>
              <td>{step.by}</td>
              <td className="quiet">{t(`stage.counter.places.${step.place}`)}</td>
              <td className="quiet">{day(step.at)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </aside>
  );
}
