import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useId } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { ListField } from "../../ui/ListField";
import { SectionForm } from "../../ui/SectionForm";
import { useLive } from "../../ui/useLive";
import { useRested } from "../../ui/usePreview";
import { useSection } from "../../ui/useSection";

type Pin = { name: string; shortcuts?: string[]; platforms?: Record<string, string> };
type Values = { categories: Pin[] };

/** The channel's own names for categories, and what each platform calls them. */
export function Categories({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const section = useSection<Values>("channel");
  const platforms = useLive((state) => state.parts.stream?.platforms) ?? [];
  const pins = section.values?.categories ?? [];
  const set = (categories: Pin[]) => section.change({ categories });
  const change = (place: number, changes: Partial<Pin>) =>
    set(pins.map((pin, other) => (other === place ? { ...pin, ...changes } : pin)));
  return (
    <SectionForm
      title={t("stage.parts.categories")}
      lead={t("stage.categories.lead")}
      may={may}
      section={section}
      fields={["categories"]}
    >
      {section.wrong("categories") && (
        <p className="clay" role="alert">
          {section.wrong("categories")}
        </p>
      )}
      {pins.map((pin, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a pin is its place in the list while it is typed
        <section key={place} className="pin">
          <div className="pin-head">
            <Form.Control
              value={pin.name}
              aria-label={t("stage.categories.name")}
              placeholder={t("stage.categories.name")}
              onChange={(event) => change(place, { name: event.target.value })}
            />
            {may && (
              <Button
                variant="outline-secondary"
                aria-label={t("list.remove", { item: pin.name })}
                onClick={() => set(pins.filter((_, other) => other !== place))}
              >
                ×
              </Button>
            )}
          </div>
          <div className="pin-platforms">
            {platforms.map((platform) => (
              <PlatformName
                key={platform.name}
                platform={platform.name}
                pin={pin}
                onChange={(name) => {
                  const { [platform.name]: _, ...others } = pin.platforms ?? {};
                  change(place, { platforms: name ? { ...others, [platform.name]: name } : others });
                }}
              />
            ))}
          </div>
          <ListField
            label={t("stage.categories.shortcuts")}
            help={t("stage.categories.shortcutsHelp")}
            items={pin.shortcuts ?? []}
            disabled={!may}
            onChange={(shortcuts) => change(place, { shortcuts })}
          />
        </section>
      ))}
      {may && (
        <Button variant="outline-secondary" className="mb-3" onClick={() => set([...pins, { name: "" }])}>
          {t("stage.categories.add")}
        </Button>
      )}
    </SectionForm>
  );
}

type NameProps = { platform: string; pin: Pin; onChange: (name: string) => void };

/** What a platform calls it, with what its directory has that is like it; empty where it is called the same. */
function PlatformName({ platform, pin, onChange }: NameProps) {
  const { t } = useTranslation();
  const list = useId();
  const typed = pin.platforms?.[platform] ?? "";
  const wanted = useRested(typed || pin.name);
  const { data } = useQuery({
    queryKey: ["categories", wanted],
    queryFn: () => ask(api.GET("/api/stream/categories", { params: { query: { name: wanted } } })),
    enabled: wanted.length > 1,
    placeholderData: keepPreviousData,
  });
  const found = data?.platforms.find((one) => one.platform === platform);
  const unknown = found && !found.any && found.exact?.toLowerCase() !== wanted.toLowerCase();
  return (
    <Form.Group controlId={list}>
      <Form.Label>{t(`platforms.${platform}`, { defaultValue: platform })}</Form.Label>
      <Form.Control
        value={typed}
        list={`${list}-names`}
        placeholder={pin.name}
        autoComplete="off"
        onChange={(event) => onChange(event.target.value)}
      />
      <datalist id={`${list}-names`}>
        {found?.nearest.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      {unknown && <Form.Text className="straw">{t("stage.categories.unknown")}</Form.Text>}
    </Form.Group>
  );
}
