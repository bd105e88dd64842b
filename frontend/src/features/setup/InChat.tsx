import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { PlatformSelect } from "../../ui/PlatformSelect";
import { usePlatforms } from "../../ui/usePlatforms";

type Account = Schemas["AccountView"];
type Props = {
  one: Account;
  /** Whether it may be changed here. */
  may: boolean;
  /** Whether the person's card may be opened. */
  mayRead: boolean;
  onChange: (asked: Promise<unknown>, said: string) => Promise<void>;
};

/** Who somebody of the team is in chat, so that what they do there and at the Desk is one person's. */
export function InChat({ one, may, mayRead, onChange }: Props) {
  const { t } = useTranslation();
  const [asking, setAsking] = useState(false);
  const name = one.chat
    ? t("team.onPlatform", {
        login: one.chat.login,
        platform: t(`platforms.${one.chat.platform}`, { defaultValue: one.chat.platform }),
      })
    : t("team.unknown");
  if (asking) return <Ask one={one} onChange={onChange} onClose={() => setAsking(false)} />;
  return (
    <span className="in-chat">
      {one.chat && mayRead ? (
        <Link to={`/people/card/${encodeURIComponent(one.chat.person)}`}>{name}</Link>
      ) : (
        <span className="quiet">{name}</span>
      )}{" "}
      {may && (
        <Button size="sm" variant="link" onClick={() => setAsking(true)}>
          {t(one.chat ? "team.another" : "team.sayWho")}
        </Button>
      )}
    </span>
  );
}

function Ask({ one, onChange, onClose }: Pick<Props, "one" | "onChange"> & { onClose: () => void }) {
  const { t } = useTranslation();
  const known = usePlatforms();
  const [login, setLogin] = useState(one.chat?.login ?? one.login);
  const [platform, setPlatform] = useState(one.chat?.platform ?? known[0] ?? "");
  const [problem, setProblem] = useState<string | null>(null);
  const put = (person: string, said: string) => {
    onClose();
    const params = { path: { login: one.login } };
    return onChange(ask(api.PUT("/api/team/accounts/{login}", { params, body: { person } })), said);
  };
  const take = async (event: FormEvent) => {
    event.preventDefault();
    const [found] = await ask(api.POST("/api/people/check", { body: { platform, names: [login] } })).catch(
      () => [],
    );
    if (found?.person) await put(found.person, t("team.isInChat", { name: one.name, login: found.login }));
    else setProblem(found?.problem ?? t("problems.lost"));
  };
  return (
    <Form className="in-chat-form" onSubmit={(event) => void take(event)}>
      <Form.Control
        size="sm"
        value={login}
        aria-label={t("team.whoInChat", { name: one.name })}
        onChange={(event) => setLogin(event.target.value)}
      />
      <PlatformSelect
        small
        label={t("people.linkPlatform")}
        platforms={known}
        value={platform}
        onChange={setPlatform}
      />
      <Button size="sm" type="submit" disabled={!login.trim()}>
        {t("team.takeIt")}
      </Button>
      {one.chat && (
        <Button
          size="sm"
          variant="outline-secondary"
          onClick={() => void put("", t("team.isNobody", { name: one.name }))}
        >
          {t("team.nobodyInChat")}
        </Button>
      )}
      <Button size="sm" variant="outline-secondary" onClick={onClose}>
        {t("confirm.not")}
      </Button>
      {problem && <Form.Text className="text-danger">{problem}</Form.Text>}
    </Form>
  );
}
