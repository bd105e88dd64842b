import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";

type Props = {
  feeds: Schemas["FeedView"][];
  may: boolean;
  onRules: (rules: Schemas["Rules"]) => void;
};

/** Imported lists of forbidden hosts: brought in by paste or address, asked for again by a press. */
export function Feeds({ feeds, may, onRules }: Props) {
  const { t } = useTranslation();
  const { tell, complain } = useTelling();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [address, setAddress] = useState("");
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const took = (done: Schemas["Imported"]) => {
    onRules(done.rules);
    const odd = done.odd.length
      ? ` ${t("rules.feedOdd", { count: done.odd.length, lines: done.odd.join(", ") })}`
      : "";
    tell(t("rules.feedDone", { count: done.hosts }) + odd);
  };
  const bringIn = async () => {
    setBusy(true);
    try {
      const body = { name: name.trim(), address: address.trim() || null, text: address.trim() ? null : text };
      took(await ask(api.POST("/api/rules/feeds", { body })));
      setOpen(false);
      setName("");
      setAddress("");
      setText("");
      setProblem(null);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      setProblem(error.detail);
    } finally {
      setBusy(false);
    }
  };
  const run = async (work: Promise<void>) => {
    try {
      await work;
    } catch (error) {
      complain(error);
    }
  };
  return (
    <section className="list-editor">
      <div className="list-title">
        <h3>{t("rules.feeds")}</h3>
      </div>
      <p className="quiet small">{t("rules.feedsHelp")}</p>
      <ul className="entries">
        {feeds.map((feed) => (
          <li key={feed.name}>
            <span className="entry-text">
              {feed.name} <span className="quiet small">{t("rules.feedHosts", { count: feed.hosts })}</span>
            </span>
            {may && feed.address && (
              <Button
                variant="link"
                size="sm"
                className="p-0"
                onClick={() =>
                  void run(
                    ask(
                      api.POST("/api/rules/feeds/{name}/again", { params: { path: { name: feed.name } } }),
                    ).then(took),
                  )
                }
              >
                {t("rules.feedAgain")}
              </Button>
            )}
            {may && (
              <button
                type="button"
                className="drop"
                aria-label={`${t("rules.feedDrop")}: ${feed.name}`}
                onClick={() =>
                  void run(
                    ask(
                      api.DELETE("/api/rules/feeds/{name}", { params: { path: { name: feed.name } } }),
                    ).then(onRules),
                  )
                }
              >
                ×
              </button>
            )}
          </li>
        ))}
      </ul>
      {may && !open && (
        <Button size="sm" variant="outline-secondary" onClick={() => setOpen(true)}>
          {t("rules.feedNew")}
        </Button>
      )}
      {open && (
        <div className="entry-editor">
          <Form.Control
            size="sm"
            value={name}
            placeholder={t("rules.feedName")}
            aria-label={t("rules.feedName")}
            onChange={(event) => setName(event.target.value)}
          />
          <Form.Control
            size="sm"
            value={address}
            placeholder={t("rules.feedAddress")}
            aria-label={t("rules.feedAddress")}
            onChange={(event) => setAddress(event.target.value)}
          />
          {!address.trim() && (
            <Form.Control
              size="sm"
              as="textarea"
              rows={4}
              value={text}
              placeholder={t("rules.feedText")}
              aria-label={t("rules.feedText")}
              onChange={(event) => setText(event.target.value)}
            />
          )}
          {problem && <p className="clay small">{problem}</p>}
          <div className="d-flex gap-2">
            <Button
              size="sm"
              disabled={busy || !name.trim() || !(address.trim() || text.trim())}
              onClick={() => void bringIn()}
            >
              {t("rules.feedImport")}
            </Button>
            <Button size="sm" variant="outline-secondary" onClick={() => setOpen(false)}>
              {t("desk.close")}
            </Button>
          </div>
        </div>
      )}
    </section>
  );
}
