import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type FormEvent, useId, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import type { PlatformState } from "../../live/types";
import { useRested } from "../../ui/usePreview";
import { useStreamActs } from "./streamActs";

type Props = { platforms: PlatformState[]; same: boolean; may: boolean };

/** The category, set on all platforms at once by whatever each calls it; what it would become shows while one types. */
export function CategoryField({ platforms, same, may }: Props) {
  const { t } = useTranslation();
  const { setCategory } = useStreamActs();
  const list = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const wanted = useRested(draft?.trim() ?? "");
  const { data } = useQuery({
    queryKey: ["categories", wanted],
    queryFn: () => ask(api.GET("/api/stream/categories", { params: { query: { name: wanted } } })),
    enabled: wanted.length > 1,
    placeholderData: keepPreviousData,
  });
  const live = platforms.filter((platform) => platform.live);
  const shown = live.length ? live : platforms;
  const current = shown[0]?.category ?? "";
  if (!may) return <p className="category">{current || t("bench.noCategory")}</p>;
  const typing = draft !== null && draft.trim() !== "" && draft.trim() !== current;
  const found =
    data?.platforms.filter((one) => shown.some((platform) => platform.name === one.platform)) ?? [];
  const suggestions = [...new Set([...(data?.pinned ?? []), ...found.flatMap((one) => one.nearest)])].slice(
    0,
    8,
  );
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (typing && (await setCategory(draft.trim()))) setDraft(null);
  };
  return (
    <Form onSubmit={submit} className="title-field category-field">
      <Form.Control
        aria-label={t("bench.category")}
        value={draft ?? current}
        list={list}
        autoComplete="off"
        placeholder={t("bench.noCategory")}
        onChange={(event) => setDraft(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && setDraft(null)}
        onFocus={(event) => event.target.select()}
      />
      <datalist id={list}>
        {suggestions.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      {typing && (
        <div className="becomes">
          <Button type="submit" size="sm">
            {t("bench.setCategory")}
          </Button>
          <span className="quiet">
            {found.map((one) => (
              <span key={one.platform} className={one.exact ? "" : "straw"}>
                {t(`platforms.${one.platform}`, { defaultValue: one.platform })}:{" "}
                {one.exact ?? t("bench.noSuch")}
              </span>
            ))}
          </span>
        </div>
      )}
      {!typing && !same && (
        <>
          <p className="straw">{t("bench.categoriesDiffer")}</p>
          {shown.map((platform) => (
            <div key={platform.name} className="row-item small">
              <span className="quiet">
                {t(`platforms.${platform.name}`, { defaultValue: platform.name })}
              </span>
              <span>{platform.category || t("bench.noCategory")}</span>
            </div>
          ))}
        </>
      )}
    </Form>
  );
}
