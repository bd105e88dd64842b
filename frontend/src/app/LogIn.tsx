import { useQueryClient } from "@tanstack/react-query";
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
  const key = pathname === "/welcome" ? new URLSearchParams(search).get("key") : null;
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const given = (name: string) => String(form.get(name) ?? "");
    setBusy(true);
    try {
      const body = { login: given("login"), password: given("password") };
      const me = key
        ? await ask(api.POST("/api/welcome", { body: { ...body, key, name: given("name") } }))
        : await ask(api.POST("/api/session", { body }));
      queries.setQueryData(["me"], me);
      if (key) navigate("/");
    } catch (error) {
      setProblem(error instanceof Problem ? error.detail : String(error));
    } finally {
      setBusy(false);
    }
  };

  return (
    <main className="login">
      <form onSubmit={submit}>
        <p className="product">{t("product")}</p>
        <h1>{t(key ? "logIn.welcomeTitle" : "logIn.title")}</h1>
        <p className="quiet">{t(key ? "logIn.welcomeLead" : "logIn.lead")}</p>
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
        {problem && <Alert variant="danger">{problem}</Alert>}
        <Button type="submit" disabled={busy}>
          {t(key ? "logIn.make" : "logIn.go")}
        </Button>
      </form>
    </main>
  );
}
