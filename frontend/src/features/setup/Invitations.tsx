import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { CopyField } from "../../ui/CopyField";
import { useTelling } from "../../ui/Notice";
import { day } from "../../ui/time";

type Level = "viewer" | "moderator" | "lead";
type Props = { open: Schemas["InvitationView"][]; mayLead: boolean; onChanged: () => void };

/** Inviting somebody by a link that works once, and the invitations that are still open. */
export function Invitations({ open, mayLead, onChanged }: Props) {
  const { t } = useTranslation();
  const { complain } = useTelling();
  const [level, setLevel] = useState<Level>("moderator");
  const [note, setNote] = useState("");
  const [made, setMade] = useState<Schemas["Invitation"] | null>(null);
  const invite = async (event: FormEvent) => {
    event.preventDefault();
    try {
      setMade(await ask(api.POST("/api/team/invitations", { body: { level, note, days: 3 } })));
      setNote("");
    } catch (error) {
      complain(error);
    }
    onChanged();
  };
  const withdraw = async (id: number) => {
    await ask(api.DELETE("/api/team/invitations/{id}", { params: { path: { id } } })).catch(complain);
    onChanged();
  };
  return (
    <section className="mt-4">
      <h3>{t("team.invite")}</h3>
      <Form className="invite" onSubmit={invite}>
        <Form.Select
          value={level}
          aria-label={t("team.level")}
          onChange={(event) => setLevel(event.target.value as Level)}
        >
          <option value="viewer">{t("team.levels.viewer")}</option>
          <option value="moderator">{t("team.levels.moderator")}</option>
          {mayLead && <option value="lead">{t("team.levels.lead")}</option>}
        </Form.Select>
        <Form.Control
          value={note}
          placeholder={t("team.forWhom")}
          aria-label={t("team.forWhom")}
          onChange={(event) => setNote(event.target.value)}
        />
        <Button type="submit">{t("team.makeLink")}</Button>
      </Form>
      <p className="quiet">{t("team.inviteHelp")}</p>
      {made && (
        <CopyField id="invitation-link" label={t("team.link", { when: day(made.ends) })} value={made.link} />
      )}
      {open.map((one) => (
        <div key={one.id} className="row-item invitation">
          <span>
            {t(`team.levels.${one.level}`)}
            {one.note && <b> {one.note}</b>}{" "}
            <span className="quiet">{t("team.openUntil", { who: one.by, when: day(one.ends) })}</span>
          </span>
          <Button size="sm" variant="outline-secondary" onClick={() => void withdraw(one.id)}>
            {t("team.withdraw")}
          </Button>
        </div>
      ))}
    </section>
  );
}
