import {
  type InfiniteData,
  type UseInfiniteQueryResult,
  useInfiniteQuery,
  useQuery,
} from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { NavLink, useParams } from "react-router";
import { api, ask, type Schemas } from "../../api/client";
import { SearchField } from "../../ui/SearchField";
import { useLive } from "../../ui/useLive";
import { useMe } from "../../ui/useMe";
import { useRested } from "../../ui/usePreview";
import { Entry } from "./Entry";
import { SectionBack } from "./SectionBack";

type Pages = UseInfiniteQueryResult<InfiniteData<Schemas["LedgerPage"]>>;

/** A chosen day's beginning, or that of a day later, as the server's moments; null where none is chosen. */
function momentOf(day: string, later: number): number | null {
  if (!day) return null;
  const begin = new Date(`${day}T00:00`);
  begin.setDate(begin.getDate() + later);
  return begin.getTime() * 1000;
}

/** The ledger: who changed or did what, when and from where; found by person, kind and words. */
export function Records() {
  const { t } = useTranslation();
  const { part } = useParams();
  const { data: me } = useMe();
  const may = Boolean(me?.may.includes("ledger"));
  const grown = useLive((state) => state.parts.ledger);
  const [who, setWho] = useState("");
  const [what, setWhat] = useState("");
  const [text, setText] = useState("");
  const [since, setSince] = useState("");
  const [until, setUntil] = useState("");
  const words = useRested(text.trim());
  const { data: filters } = useQuery({
    queryKey: ["ledger-filters", grown],
    queryFn: () => ask(api.GET("/api/ledger/filters")),
    placeholderData: (before) => before,
    enabled: may,
  });
  const pages = useInfiniteQuery({
    queryKey: ["ledger", who, what, words, since, until],
    queryFn: ({ pageParam }) => {
      const query = { who: who || null, what: what || null, text: words, before: pageParam };
      const times = { since: momentOf(since, 0), until: momentOf(until, 1) };
      return ask(api.GET("/api/ledger", { params: { query: { ...query, ...times } } }));
    },
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.more,
    enabled: may,
  });
  const { refetch } = pages;
  const readingBack = (pages.data?.pages.length ?? 0) > 1;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is new is shown unless somebody reads back
  useEffect(() => {
    if (may && !readingBack) void refetch();
  }, [grown, may, readingBack, refetch]);
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
              <SearchField label={t("ledger.search")} value={text} onChange={setText} />
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
            <div className="list-head days">
              <Form.Control
                type="date"
                value={since}
                aria-label={t("ledger.fromDay")}
                title={t("ledger.fromDay")}
                onChange={(event) => setSince(event.target.value)}
              />
              <Form.Control
                type="date"
                value={until}
                aria-label={t("ledger.toDay")}
                title={t("ledger.toDay")}
                onChange={(event) => setUntil(event.target.value)}
              />
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
