import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Me, type Schemas } from "../../api/client";
import { Confirm } from "../../ui/Confirm";
import { useTelling } from "../../ui/Notice";
import { useLive } from "../../ui/useLive";
import { InChat } from "./InChat";
import { Invitations } from "./Invitations";
import { Permissions } from "./Permissions";

const LEVELS = ["viewer", "moderator", "lead"] as const;
type Level = (typeof LEVELS)[number];

/** Who is in the team and at which level, invitations, and who may do what. */
export function Team({ me }: { me: Me }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const changes = useLive((state) => state.parts.team);
  const here = useLive((state) => state.parts.present?.join());
  const { data } = useQuery({
    queryKey: ["team", changes, here],
    queryFn: () => ask(api.GET("/api/team")),
    placeholderData: (before) => before,
  });
  const leads = me.may.includes("team");
  const run = async (asked: Promise<unknown>, said: string) => {
    try {
      await asked;
      tell(said);
    } catch (error) {
      complain(error);
    }
    await queries.invalidateQueries({ queryKey: ["team"] });
  };
  const change = (one: Schemas["AccountView"], level: Level) =>
    run(
      ask(
        api.PUT("/api/team/accounts/{login}", {
          params: { path: { login: one.login } },
          body: { level },
        }),
      ),
      t("team.changed", { name: one.name, level: t(`team.levels.${level}`) }),
    );
  const dismiss = (one: Schemas["AccountView"]) =>
    run(
      ask(api.DELETE("/api/team/accounts/{login}", { params: { path: { login: one.login } } })),
      t("team.gone", { name: one.name }),
    );
  const endSessions = (one: Schemas["AccountView"]) =>
    run(
      ask(api.DELETE("/api/team/accounts/{login}/sessions", { params: { path: { login: one.login } } })),
      t("team.loggedOut", { name: one.name }),
    );
  const dropSecond = (one: Schemas["AccountView"]) =>
    run(
      ask(api.DELETE("/api/team/accounts/{login}/second", { params: { path: { login: one.login } } })),
      t("second.dropped", { name: one.name }),
    );
  return (
    <>
      <h2 className="room-title">{t("setup.parts.team")}</h2>
      <p>{t("team.lead")}</p>
      <table className="plain-table team-table">
        <thead>
          <tr>
            <th>{t("team.name")}</th>
            <th>{t("team.login")}</th>
            <th>{t("team.level")}</th>
            <th>{t("team.inChat")}</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {data?.accounts.map((one) => (
            <tr key={one.login} data-login={one.login}>
              <td>
                <b>{one.name}</b> {one.here && <span className="chip moss">{t("team.here")}</span>}
                {one.login === me.login && <span className="quiet"> {t("team.you")}</span>}
              </td>
              <td className="quiet">{one.login}</td>
              <td>
                {leads && one.level !== "broadcaster" ? (
                  <Form.Select
                    size="sm"
                    value={one.level}
                    aria-label={t("team.levelOf", { name: one.name })}
                    onChange={(event) => void change(one, event.target.value as Level)}
                  >
                    {LEVELS.map((level) => (
                      <option key={level} value={level}>
                        {t(`team.levels.${level}`)}
                      </option>
                    ))}
                  </Form.Select>
                ) : (
                  t(`team.levels.${one.level}`)
                )}
              </td>
              <td>
                <InChat one={one} may={leads} mayRead={me.may.includes("card")} onChange={run} />
              </td>
              <td>
                {leads && one.seconds && one.login !== me.login && (
                  <Confirm
                    words={t("second.drop")}
                    sure={t("second.dropSure", { name: one.name })}
                    go={t("second.dropNow")}
                    onGo={() => void dropSecond(one)}
                  />
                )}
                {leads && one.login !== me.login && (
                  <Button size="sm" variant="outline-secondary" onClick={() => void endSessions(one)}>
                    {t("team.logOut")}
                  </Button>
                )}{" "}
                {leads && one.level !== "broadcaster" && (
                  <Confirm
                    words={t("team.letGo")}
                    sure={t("team.letGoSure", { name: one.name })}
                    go={t("team.letGoNow")}
                    onGo={() => void dismiss(one)}
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {me.may.includes("invite") && (
        <Invitations
          open={data?.invitations ?? []}
          mayLead={me.level === "broadcaster"}
          onChanged={() => void queries.invalidateQueries({ queryKey: ["team"] })}
        />
      )}
      <Permissions all={data?.permissions ?? []} may={leads} onMove={run} />
    </>
  );
}
