import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Me, Problem, type Schemas } from "../../api/client";
import { CopyField } from "../../ui/CopyField";
import { useTelling } from "../../ui/Notice";

/** A second factor for oneself: a picture for the authenticator, turned on by its first code. */
export function Second({ me }: { me: Me }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const { data: team } = useQuery({ queryKey: ["team"], queryFn: () => ask(api.GET("/api/team")) });
  const [begun, setBegun] = useState<Schemas["SecondView"] | null>(null);
  const on = Boolean(team?.accounts.find((one) => one.login === me.login)?.seconds);
  const begin = async () => {
    try {
      setBegun(await ask(api.POST("/api/second")));
    } catch (error) {
      complain(error);
    }
  };
  const done = async (said: string) => {
    setBegun(null);
    await queries.invalidateQueries({ queryKey: ["team"] });
    tell(said);
  };
  return (
    <section className="mt-4">
      <h3>{t("second.title")}</h3>
      <p className="quiet">{t(on ? "second.on" : "second.off")}</p>
      {on && (
        <CodeForm
          id="second-off"
          go={t("second.turnOff")}
          send={(code) => ask(api.POST("/api/second/off", { body: { code } }))}
          onDone={() => void done(t("second.isOff"))}
        />
      )}
      {!on && !begun && (
        <Button variant="outline-secondary" onClick={() => void begin()}>
          {t("second.begin")}
        </Button>
      )}
      {begun && (
        <div className="second-factor">
          <img src={begun.picture} alt={t("second.picture")} width={205} height={205} />
          <div>
            <p>{t("second.scan")}</p>
            <CopyField id="second-secret" label={t("second.byHand")} value={begun.secret} />
            <CodeForm
              id="second-code"
              go={t("second.turnOn")}
              send={(code) => ask(api.PUT("/api/second", { body: { code } }))}
              onDone={() => void done(t("second.isOn"))}
            />
          </div>
        </div>
      )}
    </section>
  );
}

type CodeProps = { id: string; go: string; send: (code: string) => Promise<unknown>; onDone: () => void };

function CodeForm({ id, go, send, onDone }: CodeProps) {
  const { t } = useTranslation();
  const [code, setCode] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await send(code);
      onDone();
    } catch (error) {
      setProblem(error instanceof Problem ? error.detail : String(error));
    }
    setCode("");
  };
  return (
    <Form onSubmit={submit} className="mt-3">
      <Form.Group controlId={id}>
        <Form.Label>{t("second.code")}</Form.Label>
        <div className="d-flex gap-2">
          <Form.Control
            className="code-field"
            value={code}
            inputMode="numeric"
            autoComplete="one-time-code"
            isInvalid={Boolean(problem)}
            onChange={(event) => setCode(event.target.value)}
          />
          <Button type="submit" disabled={code.replace(/\s/g, "").length < 6}>
            {go}
          </Button>
        </div>
        {problem && <Form.Text className="text-danger">{problem}</Form.Text>}
      </Form.Group>
    </Form>
  );
}
