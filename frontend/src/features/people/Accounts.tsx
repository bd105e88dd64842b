import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { PlatformSelect } from "../../ui/PlatformSelect";
import { day } from "../../ui/time";
import { usePlatforms } from "../../ui/usePlatforms";
import { useRun } from "../../ui/useRun";

type Props = { card: Schemas["PersonCard"]; may: boolean };

/** A person's accounts with the names they had; linked and parted here, never by the gate itself. */
export function Accounts({ card, may }: Props) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const run = useRun();
  const known = usePlatforms();
  const [login, setLogin] = useState("");
  const [platform, setPlatform] = useState("");
  const person = card.accounts[0]?.key ?? "";
  const named = (name: string) => t(`platforms.${name}`, { defaultValue: name });
  const change = async (asked: Promise<unknown>, said: string) => {
    if (await run(asked, said)) setLogin("");
    await queries.invalidateQueries({ queryKey: ["people"] });
  };
  const link = (other: string) =>
    change(ask(api.POST("/api/people/link", { body: { person, other } })), t("people.linked"));
  const part = (one: string) =>
    change(ask(api.POST("/api/people/unlink", { body: { person: one } })), t("people.parted"));
  const typed = async (event: FormEvent) => {
    event.preventDefault();
    const where = platform || known[0] || "";
    try {
      const body = { platform: where, names: [login] };
      const [found] = await ask(api.POST("/api/people/check", { body }));
      if (found?.person) await link(found.person);
      else tell(found?.problem ?? "");
    } catch (error) {
      complain(error);
    }
  };
  return (
    <section>
      <h3>{t("people.accounts")}</h3>
      <ul className="accounts">
        {card.accounts.map((one) => (
          <li key={one.key} data-account={one.key}>
            <b>{one.login}</b> {named(one.platform)}{" "}
            {one.name !== one.login && (
              <span className="quiet">{t("people.shownAs", { name: one.name })}</span>
            )}{" "}
            {one.had.map((had) => (
              <span key={`${had.login}${had.until}`} className="quiet">
                {t("people.had", { name: had.name, when: day(had.until) })}{" "}
              </span>
            ))}
            {may && card.accounts.length > 1 && (
              <Button size="sm" variant="outline-secondary" onClick={() => void part(one.key)}>
                {t("people.part")}
              </Button>
            )}
          </li>
        ))}
        {card.alike.map((one) => (
          <li key={one.key} data-alike={one.key}>
            <span className="quiet">
              {t("people.alike", { name: one.login, platform: named(one.platform) })}
            </span>{" "}
            {may && (
              <Button size="sm" variant="outline-secondary" onClick={() => void link(one.key)}>
                {t("people.same")}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {may && known.length > 0 && (
        <Form className="note-form" onSubmit={(event) => void typed(event)}>
          <Form.Control
            size="sm"
            value={login}
            aria-label={t("people.linkLogin")}
            placeholder={t("people.linkLogin")}
            onChange={(event) => setLogin(event.target.value)}
          />
          <PlatformSelect
            small
            label={t("people.linkPlatform")}
            platforms={known}
            value={platform || (known[0] ?? "")}
            onChange={setPlatform}
          />
          <Button size="sm" type="submit" variant="outline-secondary" disabled={!login.trim()}>
            {t("people.link")}
          </Button>
        </Form>
      )}
    </section>
  );
}
