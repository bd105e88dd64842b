import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { useLive } from "../../ui/useLive";
import { useMe } from "../../ui/useMe";
import { useRested } from "../../ui/usePreview";
import { Entry } from "./Entry";

/** The ledger: who changed or did what, when and from where; found by person, kind and words. */
export function Records() {
  const { t } = useTranslation();
  const { data: me } = useMe();
  const may = Boolean(me?.may.includes("ledger"));
  const settings = useLive((state) => state.parts.settings);
  const [who, setWho] = useState("");
  const [what, setWhat] = useState("");
  const [text, setText] = useState("");
  const words = useRested(text.trim());
  const { data: filters } = useQuery({
    queryKey: ["ledger-filters", settings],
    queryFn: () => ask(api.GET("/api/ledger/filters")),
    placeholderData: (before) => before,
    enabled: may,
  });
  const pages = useInfiniteQuery({
    queryKey: ["ledger", who, what, words],
    queryFn: ({ pageParam }) => {
      const query = { who: who || null, what: what || null, text: words, before: pageParam };
      return ask(api.GET("/api/ledger", { params: { query } }));
    },
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.more,
    enabled: may,
    refetchInterval: 10_000,
  });
  const entries = pages.data?.pages.flatMap((page) => page.entries) ?? [];
  return (
    <main className="room records">
      <aside className="list">
        <h1 className="visually-hidden">{t("rooms.records")}</h1>
        <div className="list-head">
          <Form.Control
            type="search"
            value={text}
            placeholder={t("ledger.search")}
            aria-label={t("ledger.search")}
            onChange={(event) => setText(event.target.value)}
          />
          <Form.Select
            value={who}
            aria-label={t("ledger.byWhom")}
            onChange={(event) => setWho(event.target.value)}
          >
            <option value="">{t("ledger.everybody")}</option>
            {filters?.people.map((one) => (
              <option key={one.key} value={one.key}>
                {one.key === "gate" ? t("ledger.gate") : one.name}
              </option>
            ))}
          </Form.Select>
          <Form.Select
            value={what}
            aria-label={t("ledger.kind")}
            onChange={(event) => setWhat(event.target.value)}
          >
            <option value="">{t("ledger.everything")}</option>
            {filters?.kinds.map((one) => (
              <option key={one.what} value={one.what}>
                {t(`ledger.kinds.${one.what}`, { defaultValue: one.what })} ({one.count})
              </option>
            ))}
          </Form.Select>
        </div>
        <p className="list-caption">{t("ledger.lead")}</p>
      </aside>
      <section className="chosen">
        <h2 className="room-title">{t("ledger.title")}</h2>
        {!may && me && <p className="quiet">{t("ledger.notForViewers")}</p>}
        {pages.isSuccess && entries.length === 0 && <p className="quiet">{t("ledger.none")}</p>}
        <ol className="ledger">
          {entries.map((entry) => (
            <Entry key={entry.number} entry={entry} />
          ))}
        </ol>
        {pages.hasNextPage && (
          <Button
            variant="outline-secondary"
            disabled={pages.isFetchingNextPage}
            onClick={() => void pages.fetchNextPage()}
          >
            {t("ledger.more")}
          </Button>
        )}
      </section>
    </main>
  );
}
