import { Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { SectionForm } from "../../ui/SectionForm";
import { TemplateField } from "../../ui/TemplateField";
import { useSection } from "../../ui/useSection";
import { AS_WRITTEN } from "../../words";

const KINDS = ["follow", "subscribe", "gift", "tip", "raid"] as const;
type Kind = (typeof KINDS)[number];
type Values = Record<Kind, string | string[] | null>;

const VARIABLES: Record<Kind, string[]> = {
  follow: ["person.name"],
  subscribe: ["person.name", "amount", "text"],
  gift: ["person.name", "amount"],
  tip: ["person.name", "amount", "text"],
  raid: ["person.name", "amount"],
};

const listOf = (value: string | string[] | null | undefined): string[] =>
  value == null ? [] : Array.isArray(value) ? value : [value];

/** What is said to follows, subscriptions, gifts, tips and raids, in turn. */
export function Happenings({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const section = useSection<Values>("happenings");
  const set = (kind: Kind, texts: string[]) =>
    section.change({ [kind]: texts.length === 0 ? null : texts.length === 1 ? (texts[0] ?? null) : texts });
  return (
    <SectionForm
      title={t("stage.parts.happenings")}
      lead={t("stage.happenings.lead")}
      may={may}
      section={section}
      fields={[...KINDS]}
    >
      {KINDS.map((kind) => {
        const texts = listOf(section.values?.[kind]);
        return (
          <section key={kind} className="happening">
            <div className="chosen-head">
              <h3>{t(`stage.happenings.${kind}`)}</h3>
              {texts.length === 0 && <span className="quiet">{t("stage.happenings.silent")}</span>}
              {texts.length > 1 && <span className="quiet">{t("stage.happenings.inTurn")}</span>}
            </div>
            {texts.map((text, place) => (
              <TemplateField
                // biome-ignore lint/suspicious/noArrayIndexKey: a template is its place in the list
                key={place}
                id={`happening-${kind}-${place}`}
                label={t("stage.happenings.reply", { n: place + 1 })}
                value={text}
                used="happening"
                variables={VARIABLES[kind]}
                disabled={!may}
                problem={place === 0 ? section.wrong(kind) : null}
                onChange={(one) =>
                  set(
                    kind,
                    texts.map((old, other) => (other === place ? one : old)),
                  )
                }
                onDrop={() =>
                  set(
                    kind,
                    texts.filter((_, other) => other !== place),
                  )
                }
              />
            ))}
            {may && (
              <Button
                size="sm"
                variant="outline-secondary"
                onClick={() => set(kind, [...texts, t(`stage.happenings.usual.${kind}`, AS_WRITTEN)])}
              >
                {t(texts.length ? "stage.happenings.another" : "stage.happenings.answer")}
              </Button>
            )}
          </section>
        );
      })}
    </SectionForm>
  );
}
