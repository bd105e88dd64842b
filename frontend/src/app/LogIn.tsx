import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { useLocation, useNavigate } from "react-router";
import { api, ask, Problem } from "../api/client";

/** Logging in; with a one-time key in the address, making the first account. */
export function LogIn() {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  const welcome = pathname === "/welcome";
  const key = welcome || pathname === "/join" ? new URLSearchParams(search).get("key") : null;
  const invited = useQuery({
    queryKey: ["invited", key],
    queryFn: () => ask(api.GET("/api/join", { params: { query: { key: key ?? "" } } })),
    enabled: key !== null && !welcome,
    retry: false,
  });
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [coded, setCoded] = useState(false);

  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const given = (name: string) => String(form.get(name) ?? "");
    setBusy(true);
    try {
      const body = { login: given("login"), password: given("password"), code: given("code") };
      const { login, password } = body;
      const account = { login, password, key: key ?? "", name: given("name") };
      const me = !key
        ? await ask(api.POST("/api/session", { body }))
        : await ask(
            welcome ? api.POST("/api/welcome", { body: account }) : api.POST("/api/join", { body: account }),
          );
      queries.setQueryData(["me"], me);
      if (key) navigate("/");
    } catch (error) {
      if (error instanceof Problem && error.where === "code") setCoded(true);
      setProblem(error instanceof Problem ? error.detail : String(error));
    } finally {
      setBusy(false);
    }
  };

  return (
    <main className="login">
      <form onSubmit={submit}>
        <p className="product">{t("product")}</p>
        <h1>{t(!key ? "logIn.title" : welcome ? "logIn.welcomeTitle" : "logIn.joinTitle")}</h1>
        <p className="quiet">
          {!key && t("logIn.lead")}
          {key && welcome && t("logIn.welcomeLead")}
          {invited.data &&
            t("logIn.joinLead", {
              channel: invited.data.channel,
              level: t(`team.levels.${invited.data.level}`),
              who: invited.data.by,
            })}
        </p>
        {invited.error && <Alert variant="danger">{(invited.error as Problem).detail}</Alert>}
        {key && (
          <Form.Group className="mb-3" controlId="name">
            <Form.Label>{t("logIn.name")}</Form.Label>
            <Form.Control name="name" required maxLength={60} />
          </Form.Group>
        )}
        <Form.Group className="mb-3" controlId="login">
          <Form.Label>{t("logIn.login")}</Form.Label>
          <Form.Control name="login" autoComplete="username" required autoFocus />
        </Form.Group>
        <Form.Group className="mb-3" controlId="password">
          <Form.Label>{t("logIn.password")}</Form.Label>
          <Form.Control
            name="password"
            type="password"
            required
            minLength={key ? 10 : 1}
            autoComplete={key ? "new-password" : "current-password"}
          />
          {key && <Form.Text>{t("logIn.passwordHelp")}</Form.Text>}
        </Form.Group>
        {coded && (
          <Form.Group className="mb-3" controlId="code">
            <Form.Label>{t("second.code")}</Form.Label>
            <Form.Control name="code" inputMode="numeric" autoComplete="one-time-code" autoFocus />
          </Form.Group>
        )}
        {problem && <Alert variant="danger">{problem}</Alert>}
        <Button type="submit" disabled={busy}>
          {t(key ? "logIn.make" : "logIn.go")}
        </Button>
      </form>
    </main>
  );
}
