import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { Fold } from "../../ui/Fold";
import { useTelling } from "../../ui/Notice";
import { SearchField } from "../../ui/SearchField";
import { SectionForm } from "../../ui/SectionForm";
import { TemplateField } from "../../ui/TemplateField";
import { date } from "../../ui/time";
import { useRested } from "../../ui/usePreview";
import { useSection } from "../../ui/useSection";

type Quote = Schemas["QuoteView"];

/** Every quote: searched, added, removed and put back; as a table; and how one reads in chat. */
export function Quotes({ may, maySet }: { may: boolean; maySet: boolean }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const [search, setSearch] = useState("");
  const [removed, setRemoved] = useState(false);
  const rested = useRested(search.trim());
  const { data } = useQuery({
    queryKey: ["quotes", rested, removed],
    queryFn: () => ask(api.GET("/api/quotes", { params: { query: { search: rested, removed } } })),
    placeholderData: (before) => before,
  });
  const again = () => queries.invalidateQueries({ queryKey: ["quotes"] });
  const run = async (asked: Promise<unknown>) => {
    await asked.catch(complain);
    await again();
  };
  const numbered = (quote: Quote) => ({ params: { path: { number: quote.number } } });
  const restore = (quote: Quote) => run(ask(api.POST("/api/quotes/{number}/restore", numbered(quote))));
  const remove = async (quote: Quote) => {
    try {
      await ask(api.DELETE("/api/quotes/{number}", numbered(quote)));
      tell(t("stage.quotes.removed", { number: quote.number }), {
        label: t("commands.undo"),
        run: () => void restore(quote),
      });
    } catch (error) {
      complain(error);
    }
    await again();
  };
  return (
    <>
      <h2 className="room-title">{t("stage.parts.quotes")}</h2>
      {may && <AddQuote onAdded={() => void again()} />}
      <div className="d-flex gap-3 align-items-center mb-2 quote-search">
        <SearchField label={t("stage.quotes.search")} value={search} onChange={setSearch} />
        <Form.Check
          type="switch"
          id="quotes-removed"
          label={t("stage.quotes.showRemoved")}
          checked={removed}
          onChange={(event) => setRemoved(event.target.checked)}
        />
      </div>
      {data?.length === 0 && (
        <p className="quiet">{t(removed ? "stage.quotes.noneRemoved" : "stage.quotes.none")}</p>
      )}
      <ol className="quotes">
        {data?.map((quote) => (
          <li key={quote.number} value={quote.number}>
            <span className="quote-number">{quote.number}</span>
            <div>
              <p>“{quote.text}”</p>
              <p className="quiet">
                {[quote.said_by, date(quote.date), quote.category].filter(Boolean).join(", ")} ·{" "}
                {t("stage.quotes.by", { who: quote.by })}
              </p>
            </div>
            {may && (
              <Button
                size="sm"
                variant="outline-secondary"
                onClick={() => void (quote.removed ? restore(quote) : remove(quote))}
              >
                {t(quote.removed ? "stage.quotes.putBack" : "stage.quotes.remove")}
              </Button>
            )}
          </li>
        ))}
      </ol>
      <Table may={may} onTaken={() => void again()} />
      <HowItReads may={maySet} />
    </>
  );
}

function AddQuote({ onAdded }: { onAdded: () => void }) {
  const { t } = useTranslation();
  const { complain } = useTelling();
  const [text, setText] = useState("");
  const [who, setWho] = useState("");
  const add = async () => {
    try {
      await ask(api.POST("/api/quotes", { body: { text: text.trim(), said_by: who.trim() || null } }));
      setText("");
      onAdded();
    } catch (error) {
      complain(error);
    }
  };
  return (
    <Form
      className="add-quote"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim()) void add();
      }}
    >
      <Form.Control
        value={text}
        placeholder={t("stage.quotes.text")}
        aria-label={t("stage.quotes.text")}
        onChange={(event) => setText(event.target.value)}
      />
      <Form.Control
        value={who}
        placeholder={t("stage.quotes.who")}
        aria-label={t("stage.quotes.who")}
        onChange={(event) => setWho(event.target.value)}
      />
      <Button type="submit" disabled={!text.trim()}>
        {t("list.add")}
      </Button>
    </Form>
  );
}

function Table({ may, onTaken }: { may: boolean; onTaken: () => void }) {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  const take = async (file: File) => {
    try {
      const done = await ask(api.POST("/api/quotes/table", { body: { text: await file.text() } }));
      tell(t("stage.quotes.taken", { count: done.changed, left: done.left }));
      onTaken();
    } catch (error) {
      complain(error);
    }
  };
  return (
    <p className="d-flex gap-3 align-items-center flex-wrap">
      <a href="/api/quotes/table.csv" download>
        {t("stage.quotes.table")}
      </a>
      {may && (
        <label className="file-label">
          {t("stage.quotes.take")}{" "}
          <input
            type="file"
            accept=".csv,text/csv"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = "";
              if (file) void take(file);
            }}
          />
        </label>
      )}
    </p>
  );
}

function HowItReads({ may }: { may: boolean }) {
  const { t } = useTranslation();
  const section = useSection<{ reply: string }>("quotes");
  return (
    <Fold title={t("stage.quotes.reads")} says={t("stage.quotes.readsSays")} open={section.dirty}>
      <SectionForm title={t("stage.quotes.reads")} may={may} section={section} fields={["reply"]}>
        <TemplateField
          id="quotes-reply"
          label={t("commands.reply")}
          value={section.values?.reply ?? ""}
          used="quote"
          variables={[
            "quote.number",
            "quote.text",
            "quote.said_by",
            "quote.by",
            "quote.category",
            "quote.date",
          ]}
          disabled={!may}
          problem={section.wrong("reply")}
          onChange={(reply) => section.change({ reply })}
        />
      </SectionForm>
    </Fold>
  );
}
