import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Me, type Schemas } from "../../api/client";
import { CopyField } from "../../ui/CopyField";
import { Fold } from "../../ui/Fold";
import { useTelling } from "../../ui/Notice";
import { useLive } from "../../ui/useLive";
import { Abilities } from "./Abilities";
import { ShownName } from "./ShownName";

/** How far the Gatekeeper has come on each platform, what to do next, and what each platform can do. */
export function Platforms({ me }: { me: Me }) {
  const { t } = useTranslation();
  const lamps = useLive((state) =>
    state.parts.stream?.platforms.map((one) => `${one.lamp}${one.live}${one.note}`).join(),
  );
  const { data } = useQuery({
    queryKey: ["platforms", lamps],
    queryFn: () => ask(api.GET("/api/platforms")),
    placeholderData: (before) => before,
    refetchInterval: 5000,
  });
  const owns = me.may.includes("platforms");
  if (!data) return null;
  const here = new Set(data.platforms.map((one) => one.platform));
  return (
    <>
      <h2 className="room-title">{t("setup.parts.platforms")}</h2>
      <p>{t("joining.lead")}</p>
      {data.platforms.map((one) => (
        <Platform
          key={one.platform}
          view={one}
          steps={data.steps}
          mayTest={me.may.includes("say")}
          owns={owns}
        />
      ))}
      {owns &&
        data.known
          .filter((name) => !here.has(name))
          .map((name) => (
            <section key={name} className="platform-joining">
              <h3>{t("joining.connectNew", { platform: t(`platforms.${name}`, { defaultValue: name }) })}</h3>
              <Connect platform={name} />
            </section>
          ))}
      <Fold title={t("joining.can")} says={t("joining.canSays")}>
        <Abilities platforms={data.platforms} />
      </Fold>
    </>
  );
}

type PlatformProps = {
  view: Schemas["PlatformView"];
  steps: Schemas["Platforms"]["steps"];
  mayTest: boolean;
  owns: boolean;
};

function Platform({ view, steps, mayTest, owns }: PlatformProps) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { complain } = useTelling();
  const [tested, setTested] = useState<Schemas["Tested"] | null>(null);
  const [busy, setBusy] = useState(false);
  const name = t(`platforms.${view.platform}`, { defaultValue: view.platform });
  const params = { path: { platform: view.platform } };
  const run = async (asked: Promise<unknown>) => {
    setBusy(true);
    await asked.catch(complain);
    setBusy(false);
    await queries.invalidateQueries({ queryKey: ["platforms"] });
  };
  const check = () => run(ask(api.POST("/api/platforms/{platform}/check", { params })));
  const test = () => run(ask(api.POST("/api/platforms/{platform}/test", { params })).then(setTested));
  return (
    <section className="platform-joining" data-platform={view.platform}>
      <div className="chosen-head">
        <h3>{name}</h3>
        {mayTest && (
          <span className="button-row">
            <Button size="sm" variant="outline-secondary" disabled={busy} onClick={() => void check()}>
              {t("joining.check")}
            </Button>
            <Button size="sm" variant="outline-secondary" disabled={busy} onClick={() => void test()}>
              {t("joining.test")}
            </Button>
          </span>
        )}
      </div>
      <ol className="steps">
        {steps.map((step) => {
          const mark = view.done.includes(step) ? "done" : step === view.next ? "next" : "later";
          return (
            <li key={step} className={mark}>
              <b>{t(`joining.steps.${step}`)}</b> <span>{t(`joining.${mark}Mark`)}</span>
            </li>
          );
        })}
      </ol>
      <p className={view.next && view.next !== "live" ? "straw" : ""} role="status">
        {view.next ? t(`joining.todo.${view.next}`) : t("joining.ready")}
        {view.next === "authorised" && view.note && <span className="quiet"> ({view.note})</span>}
      </p>
      {view.next === "rights" && (
        <CopyField
          id={`rights-${view.platform}`}
          label={t("joining.pasteHere", { platform: name })}
          value={view.rights_words}
        />
      )}
      {tested && (
        <p className={tested.back ? "" : "straw"}>
          {tested.back
            ? t("joining.cameBack", { seconds: tested.seconds, name: tested.name })
            : t("joining.notBack")}
        </p>
      )}
      {tested?.back && !tested.known && (
        <TakeGatekeeper platform={view.platform} tested={tested} owns={owns} />
      )}
      {mayTest && view.done.includes("joined") && <ShownName platform={view.platform} owns={owns} />}
      {owns && (
        <Fold title={t("joining.connect")} says={view.lamp === "broken" ? view.note : ""}>
          <Connect platform={view.platform} />
        </Fold>
      )}
    </section>
  );
}

type TakeProps = { platform: string; tested: Schemas["Tested"]; owns: boolean };

function TakeGatekeeper({ platform, tested, owns }: TakeProps) {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  const take = () =>
    ask(
      api.POST("/api/platforms/{platform}/gatekeeper", {
        params: { path: { platform } },
        body: { person: tested.person },
      }),
    )
      .then(() => tell(t("joining.tookGatekeeper")))
      .catch(complain);
  return (
    <p className="straw">
      {t("joining.unknownGatekeeper", { name: tested.name })}{" "}
      {owns && (
        <Button size="sm" onClick={() => void take()}>
          {t("joining.takeGatekeeper", { name: tested.name })}
        </Button>
      )}
    </p>
  );
}

function Connect({ platform }: { platform: string }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const [address, setAddress] = useState("");
  const [token, setToken] = useState("");
  const connect = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const params = { path: { platform } };
      await ask(api.PUT("/api/platforms/{platform}", { params, body: { address: address.trim(), token } }));
      setToken("");
      tell(t("joining.connected", { platform: t(`platforms.${platform}`, { defaultValue: platform }) }));
    } catch (error) {
      complain(error);
    }
    await queries.invalidateQueries({ queryKey: ["platforms"] });
  };
  return (
    <Form className="invite" onSubmit={connect}>
      <Form.Control
        value={address}
        placeholder={`${t("joining.address")}: https://…`}
        aria-label={t("joining.address")}
        onChange={(event) => setAddress(event.target.value)}
      />
      <Form.Control
        type="password"
        autoComplete="off"
        value={token}
        placeholder={t("joining.token")}
        aria-label={t("joining.token")}
        onChange={(event) => setToken(event.target.value)}
      />
      <Button type="submit" disabled={!address.trim() || !token}>
        {t("joining.go")}
      </Button>
      <Form.Text>{t("joining.tokenHelp")}</Form.Text>
    </Form>
  );
}
