import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem } from "../../api/client";
import { useTelling } from "../../ui/Notice";

/** Another password of one's own; the old one is asked for, and other sessions end. */
export function Password() {
  const { t } = useTranslation();
  const { tell } = useTelling();
  const [old, setOld] = useState("");
  const [fresh, setFresh] = useState("");
  const [problem, setProblem] = useState<{ field: string | null; detail: string } | null>(null);
  const change = async (event: FormEvent) => {
    event.preventDefault();
    setProblem(null);
    try {
      await ask(api.PUT("/api/password", { body: { old, new: fresh } }));
      setOld("");
      setFresh("");
      tell(t("password.changed"));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem({ field: error.where, detail: error.detail });
    }
  };
  const field = (id: "old" | "new", value: string, set: (text: string) => void, complete: string) => (
    <Form.Group controlId={`password-${id}`}>
      <Form.Label>{t(`password.${id}`)}</Form.Label>
      <Form.Control
        type="password"
        autoComplete={complete}
        value={value}
        isInvalid={problem?.field === id}
        onChange={(event) => set(event.target.value)}
      />
      <Form.Text className={problem?.field === id ? "text-danger" : ""}>
        {problem?.field === id ? problem.detail : t(`password.${id}Help`)}
      </Form.Text>
    </Form.Group>
  );
  return (
    <Form className="password-form" noValidate onSubmit={(event) => void change(event)}>
      <h3>{t("password.title")}</h3>
      <input type="text" autoComplete="username" hidden readOnly value="" />
      {field("old", old, setOld, "current-password")}
      {field("new", fresh, setFresh, "new-password")}
      {problem && !["old", "new"].includes(problem.field ?? "") && <p className="clay">{problem.detail}</p>}
      <Button type="submit" disabled={!old || fresh.length < 10}>
        {t("password.go")}
      </Button>
    </Form>
  );
}
