import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { PeopleField } from "../../ui/PeopleField";
import { SectionForm } from "../../ui/SectionForm";
import { TemplateField } from "../../ui/TemplateField";
import { useLive } from "../../ui/useLive";
import { useSection } from "../../ui/useSection";
import { AS_WRITTEN } from "../../words";

type Values = { greet: string | null; shoutout: string[]; skip: string[] };

/** What becomes of a person's first message in a stream. */
export function Arrivals({ may, mayForget }: { may: boolean; mayForget: boolean }) {
  const { t } = useTranslation();
  const section = useSection<Values>("arrivals");
  const platforms = useLive((state) => state.parts.stream?.platforms) ?? [];
  const names = platforms.map((one) => one.name);
  const { values, change, wrong } = section;
  return (
    <>
      <SectionForm
        title={t("stage.parts.arrivals")}
        lead={t("stage.arrivals.lead")}
        may={may}
        section={section}
        fields={["greet", "shoutout", "skip"]}
      >
        <Form.Check
          type="switch"
          id="arrivals-on"
          className="mb-2"
          label={t("stage.arrivals.on")}
          checked={values?.greet !== null}
          onChange={(event) =>
            change({ greet: event.target.checked ? t("stage.arrivals.usual", AS_WRITTEN) : null })
          }
        />
        {values?.greet != null && (
          <TemplateField
            id="arrivals-greet"
            label={t("stage.arrivals.greet")}
            help={t("stage.arrivals.greetHelp")}
            value={values.greet}
            used="arrival"
            variables={["person.name", "person.follows_for", "stream.title", "stream.uptime", "channel"]}
            disabled={!may}
            problem={wrong("greet")}
            onChange={(greet) => change({ greet })}
          />
        )}
        <PeopleField
          label={t("stage.arrivals.shoutout")}
          help={t("stage.arrivals.shoutoutHelp")}
          people={values?.shoutout ?? []}
          platforms={names}
          problem={wrong("shoutout")}
          onChange={(shoutout) => change({ shoutout })}
        />
        <PeopleField
          label={t("stage.arrivals.skip")}
          help={t("stage.arrivals.skipHelp")}
          people={values?.skip ?? []}
          platforms={names}
          problem={wrong("skip")}
          onChange={(skip) => change({ skip })}
        />
      </SectionForm>
      {mayForget && <Forget />}
    </>
  );
}

function Forget() {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  const forget = () =>
    ask(api.POST("/api/stream/arrivals/forget", { body: {} }))
      .then(() => tell(t("stage.arrivals.forgotten")))
      .catch(complain);
  return (
    <section className="mt-4">
      <h3>{t("stage.arrivals.test")}</h3>
      <p className="quiet">{t("stage.arrivals.testHelp")}</p>
      <Button variant="outline-secondary" onClick={() => void forget()}>
        {t("stage.arrivals.forget")}
      </Button>
    </section>
  );
}
