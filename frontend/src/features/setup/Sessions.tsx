import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Me } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { day } from "../../ui/time";
import { Password } from "./Password";
import { Second } from "./Second";

/** Where one is logged in; each can be ended from here. */
export function Sessions({ me }: { me: Me }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { complain } = useTelling();
  const { data } = useQuery({ queryKey: ["sessions"], queryFn: () => ask(api.GET("/api/sessions")) });
  const end = async (id: string) => {
    await ask(api.DELETE("/api/sessions/{id}", { params: { path: { id } } })).catch(complain);
    await queries.invalidateQueries({ queryKey: ["sessions"] });
  };
  return (
    <>
      <h2 className="room-title">{t("setup.parts.sessions")}</h2>
      <p>{t("team.sessionsLead")}</p>
      {data?.map((one) => (
        <div key={one.id} className="row-item session">
          <span>
            {t("team.since", { when: day(one.began) })} <span className="quiet">{one.from_where}</span>
          </span>
          {one.this ? (
            <span className="quiet">{t("team.thisOne")}</span>
          ) : (
            <Button size="sm" variant="outline-secondary" onClick={() => void end(one.id)}>
              {t("team.end")}
            </Button>
          )}
        </div>
      ))}
      <Password />
      <Second me={me} />
    </>
  );
}
