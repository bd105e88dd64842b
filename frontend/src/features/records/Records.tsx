import {
  type InfiniteData,
  type UseInfiniteQueryResult,
  useInfiniteQuery,
  useQuery,
} from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { NavLink, useParams } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { useLive } from "../../ui/useLive";
import { useMe } from "../../ui/useMe";
import { useRested } from "../../ui/usePreview";
import { Entry } from "./Entry";
import { SectionBack } from "./SectionBack";

type Pages = UseInfiniteQueryResult<InfiniteData<Schemas["LedgerPage"]>>;

/** The ledger: who changed or did what, when and from where; found by person, kind and words. */
export function Records() {
  const { t } = useTranslation();
  const { part } = useParams();
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
  return (
    <main className="room records">
      <aside className="list">
        <h1 className="visually-hidden">{t("rooms.records")}</h1>
        <div className="list-parts">
          {(["", "back"] as const).map((one) => (
            <div key={one} className="list-row">
              <NavLink end to={`/records${one && `/${one}`}`}>
                <b>{t(one ? "sectionBack.title" : "ledger.title")}</b>
              </NavLink>
            </div>
          ))}
        </div>
        {part !== "back" && (
          <>
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
          </>
        )}
      </aside>
      <section className="chosen">
        {part === "back" && may && <SectionBack />}
        {part === "back" ? null : <Ledger pages={pages} may={may} known={Boolean(me)} />}
      </section>
    </main>
  );
}
type LedgerProps = { pages: Pages; may: boolean; known: boolean };

/** The entries found, newest first. */
function Ledger({ pages, may, known }: LedgerProps) {
  const { t } = useTranslation();
  const entries = pages.data?.pages.flatMap((page) => page.entries) ?? [];
  return (
    <>
      <h2 className="room-title">{t("ledger.title")}</h2>
      {!may && known && <p className="quiet">{t("ledger.notForViewers")}</p>}
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
    </>
  );
}
