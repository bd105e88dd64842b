import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";

/** What a moderator may do with a rota: pause it or let it go on, and have its next notice posted now. */
export function Moves({ view, onMoved }: { view: Schemas["RotaView"]; onMoved: () => void }) {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  const params = { path: { name: view.name } };
  const run = async (asked: Promise<unknown>, said: string) => {
    try {
      await asked;
      tell(said);
    } catch (error) {
      complain(error);
    }
    onMoved();
  };
  const pause = (paused: boolean) =>
    run(
      ask(api.POST("/api/rotas/{name}/pause", { params, body: { paused } })),
      t(paused ? "timers.pausedNow" : "timers.runs", { name: view.name }),
    );
  const next = () => run(ask(api.POST("/api/rotas/{name}/next", { params })), t("timers.posted"));
  return (
    <span className="d-flex gap-2">
      <Button size="sm" variant="outline-secondary" onClick={() => void pause(!view.paused)}>
        {t(view.paused ? "timers.goOn" : "timers.pause")}
      </Button>
      <Button size="sm" variant="outline-secondary" onClick={() => void next()}>
        {t("timers.nextNow")}
      </Button>
    </span>
  );
}
