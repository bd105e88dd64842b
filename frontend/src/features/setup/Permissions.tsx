import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { Fold } from "../../ui/Fold";

type Props = {
  all: Schemas["PermissionView"][];
  may: boolean;
  onMove: (asked: Promise<unknown>, said: string) => Promise<void>;
};

/** Who may do what at the Desk; single acts can be moved between moderators and leads. */
export function Permissions({ all, may, onMove }: Props) {
  const { t } = useTranslation();
  const moved = all.filter((one) => one.level !== one.usual).length;
  const move = (act: string, level: "moderator" | "lead") =>
    onMove(
      ask(api.PUT("/api/team/permissions/{act}", { params: { path: { act } }, body: { level } })),
      t("team.moved", { act: t(`team.acts.${act}`), level: t(`team.levels.${level}`) }),
    );
  return (
    <Fold
      title={t("team.permissions")}
      says={moved ? t("team.movedCount", { count: moved }) : t("team.asUsual")}
    >
      <table className="plain-table">
        <tbody>
          {all.map((one) => (
            <tr key={one.act}>
              <td>
                {t(`team.acts.${one.act}`)}
                {one.level !== one.usual && (
                  <span className="chip straw">
                    {" "}
                    {t("team.usually", { level: t(`team.levels.${one.usual}`) })}
                  </span>
                )}
              </td>
              <td>
                {may && one.movable ? (
                  <Form.Select
                    size="sm"
                    value={one.level}
                    aria-label={t(`team.acts.${one.act}`)}
                    onChange={(event) => void move(one.act, event.target.value as "moderator" | "lead")}
                  >
                    <option value="moderator">{t("team.levels.moderator")}</option>
                    <option value="lead">{t("team.levels.lead")}</option>
                  </Form.Select>
                ) : (
                  <span className="quiet">{t(`team.levels.${one.level}`)}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Fold>
  );
}
