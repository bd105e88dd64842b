import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { PlatformState } from "../../live/types";
import { useLive } from "../../ui/useLive";
import { useActs } from "./acts";
import { CategoryField } from "./CategoryField";
import { Panel } from "./Panel";

/** Title and category as each platform has them; both can be set for all at once. */
export function StreamPanel({ may }: { may: (act: string) => boolean }) {
  const { t } = useTranslation();
  const all = useLive((state) => state.parts.stream?.platforms) ?? [];
  const same = useLive((state) => state.parts.stream?.same_category ?? true);
  const live = all.filter((platform) => platform.live);
  const platforms = live.length ? live : all;
  const titles = new Set(platforms.map((platform) => platform.title));
  return (
    <Panel
      name="stream"
      title={t("bench.stream")}
      aside={t(titles.size > 1 || !same ? "bench.differs" : "bench.same")}
    >
      <TitleField current={platforms[0]?.title ?? ""} platforms={platforms} may={may("title")} />
      {titles.size > 1 &&
        platforms.map((platform) => (
          <div key={platform.name} className="row-item small">
            <span className="quiet">{t(`platforms.${platform.name}`, { defaultValue: platform.name })}</span>
            <span>{platform.title || t("bench.noTitle")}</span>
          </div>
        ))}
      <CategoryField platforms={all} same={same} may={may("category")} />
    </Panel>
  );
}

function TitleField({
  current,
  platforms,
  may,
}: {
  current: string;
  platforms: PlatformState[];
  may: boolean;
}) {
  const { t } = useTranslation();
  const acts = useActs();
  const [draft, setDraft] = useState<string | null>(null);
  const text = draft ?? current;
  const tight = platforms.filter((p) => p.limit !== null).sort((a, b) => (a.limit ?? 0) - (b.limit ?? 0))[0];
  const over = tight?.limit ? [...text].length - tight.limit : 0;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (draft?.trim() && (await acts.title(draft.trim()))) setDraft(null);
  };
  if (!may) return <p className="title-now">{current || t("bench.noTitle")}</p>;
  return (
    <Form onSubmit={submit} className="title-field">
      <Form.Control
        aria-label={t("bench.title")}
        value={text}
        placeholder={t("bench.noTitle")}
        onChange={(event) => setDraft(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && setDraft(null)}
      />
      {draft !== null && draft !== current && (
        <div className="d-flex gap-2 align-items-center">
          <Button type="submit" size="sm">
            {t("bench.setTitle")}
          </Button>
          <span className={over > 0 ? "clay" : "quiet"}>
            {over > 0
              ? t("bench.over", { n: over, platform: t(`platforms.${tight?.name}`) })
              : tight && t("bench.left", { n: -over })}
          </span>
        </div>
      )}
    </Form>
  );
}
