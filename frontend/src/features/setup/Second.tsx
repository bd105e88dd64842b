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
  const { tell } = useTelling();
  const { data: team } = useQuery({ queryKey: ["team"], queryFn: () => ask(api.GET("/api/team")) });
  const [begun, setBegun] = useState<Schemas["SecondView"] | null>(null);
  const on = Boolean(team?.accounts.find((one) => one.login === me.login)?.seconds);
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
        <ProofForm
          {...CODE}
          id="second-off"
          label={t("second.code")}
          go={t("second.turnOff")}
          send={(code) => ask(api.POST("/api/second/off", { body: { code } }))}
          onDone={() => void done(t("second.isOff"))}
        />
      )}
      {!on && !begun && (
        <ProofForm
          {...PASSWORD}
          id="second-password"
          label={t("second.password")}
          go={t("second.begin")}
          send={(password) => ask(api.POST("/api/second", { body: { password } })).then(setBegun)}
        />
      )}
      {begun && (
        <div className="second-factor">
          <img src={begun.picture} alt={t("second.picture")} width={205} height={205} />
          <div>
            <p>{t("second.scan")}</p>
            <CopyField id="second-secret" label={t("second.byHand")} value={begun.secret} />
            <ProofForm
              {...CODE}
              id="second-code"
              label={t("second.code")}
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

const CODE = { inputMode: "numeric", autoComplete: "one-time-code", least: 6 } as const;
const PASSWORD = { type: "password", autoComplete: "current-password", least: 1 } as const;

type ProofProps = {
  id: string;
  label: string;
  go: string;
  /** How many signs it has at least, spaces aside. */
  least: number;
  type?: "password";
  inputMode?: "numeric";
  autoComplete: string;
  send: (proof: string) => Promise<unknown>;
  onDone?: () => void;
};

/** Something that proves who one is, a code or the password; what is wrong with it is said below it. */
function ProofForm({ id, label, go, least, send, onDone, ...field }: ProofProps) {
  const { t } = useTranslation();
  const [proof, setProof] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setProblem(null);
    try {
      await send(proof);
      onDone?.();
    } catch (error) {
      setProblem(error instanceof Problem ? error.detail : t("problems.lost"));
    }
    setProof("");
  };
  return (
    <Form onSubmit={submit} className="mt-3">
      <Form.Group controlId={id}>
        <Form.Label>{label}</Form.Label>
        <div className="d-flex gap-2">
          <Form.Control
            {...field}
            className="proof-field"
            value={proof}
            isInvalid={Boolean(problem)}
            onChange={(event) => setProof(event.target.value)}
          />
          <Button
            type="submit"
            variant="outline-secondary"
            disabled={proof.replace(/\s/g, "").length < least}
          >
            {go}
          </Button>
        </div>
        {problem && <Form.Text className="text-danger">{problem}</Form.Text>}
      </Form.Group>
    </Form>
  );
}
