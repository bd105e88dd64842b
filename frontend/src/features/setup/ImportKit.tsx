import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, Problem, type Schemas } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { KitItems } from "./KitItems";
import { firstPicks, type Names, withNeeds } from "./kit";

type Incoming = { text: string; kind: "json" | "csv"; name: string };

/** A kit or table: looked at first, then taken in by picks, and back by one press. */
export function ImportKit({
  broadcaster,
  onTakeBack,
}: {
  broadcaster: boolean;
  onTakeBack: (number: number) => void;
}) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell } = useTelling();
  const [incoming, setIncoming] = useState<Incoming>({ text: "", kind: "json", name: "" });
  const [found, setFound] = useState<Schemas["KitPreview"] | null>(null);
  const [picks, setPicks] = useState<Set<string>>(new Set());
  const [names, setNames] = useState<Record<string, Names>>({});
  const [problem, setProblem] = useState<string | null>(null);

  const complain = (error: unknown) => {
    if (!(error instanceof Problem)) throw error;
    setProblem(error.where ? `${error.where}: ${error.detail}` : error.detail);
  };
  const look = async (wanted: Incoming) => {
    setIncoming(wanted);
    setProblem(null);
    setFound(null);
    try {
      const { text, kind } = wanted;
      const preview = await ask(api.POST("/api/kits/preview", { body: { text, kind } }));
      setFound(preview);
      setPicks(firstPicks(preview.items, broadcaster));
      setNames({});
    } catch (error) {
      complain(error);
    }
  };
  const read = async (file: File | undefined) => {
    if (!file) return;
    const kind = /\.csv$/i.test(file.name) ? "csv" : "json";
    await look({ text: await file.text(), kind, name: file.name });
  };
  const take = async () => {
    if (!found) return;
    setProblem(null);
    const { text, kind, name } = incoming;
    const chosen = [...withNeeds(picks, found.items)];
    const wanted = chosen.map((place) => ({ place, names: names[place] ?? {} }));
    try {
      const body = {
        text,
        kind,
        name: name || t(`setup.kits.${kind === "csv" ? "table" : "kit"}_name`),
        picks: wanted,
      };
      const done = await ask(api.POST("/api/kits/take", { body }));
      const back = { label: t("setup.kits.back"), run: () => onTakeBack(done.number) };
      tell(t("setup.kits.taken", { count: done.changed }), done.number ? back : undefined);
      setFound(null);
      setIncoming({ text: "", kind: "json", name: "" });
      await queries.invalidateQueries();
    } catch (error) {
      complain(error);
    }
  };
  const count = (state: string) => found?.items.filter((item) => item.state === state).length ?? 0;
  return (
    <section>
      <h3>{t("setup.kits.in")}</h3>
      {!found && (
        <>
          <Form.Group controlId="kit-file" className="mb-2">
            <Form.Label>{t("setup.kits.choose")}</Form.Label>
            <Form.Control
              type="file"
              accept=".json,.csv,application/json,text/csv"
              onChange={(event) => void read((event.target as HTMLInputElement).files?.[0])}
            />
          </Form.Group>
          <Form.Group controlId="kit-text" className="mb-2">
            <Form.Label>{t("setup.kits.paste")}</Form.Label>
            <Form.Control
              as="textarea"
              rows={3}
              value={incoming.text}
              onChange={(event) => setIncoming({ ...incoming, text: event.target.value })}
            />
          </Form.Group>
        </>
      )}
      {problem && (
        <p className="clay" role="alert">
          {problem}
        </p>
      )}
      {!found && (
        <Button
          disabled={!incoming.text.trim()}
          onClick={() => {
            const kind = /^\s*[[{]/.test(incoming.text) ? "json" : "csv";
            void look({ ...incoming, kind });
          }}
        >
          {t("setup.kits.look")}
        </Button>
      )}
      {found && (
        <>
          <p role="status">
            {found.items.length
              ? t("setup.kits.found", { count: count("new"), differs: count("differs"), same: count("same") })
              : t("setup.kits.nothing")}
          </p>
          {found.warnings.length > 0 && (
            <details open={found.warnings.length < 4}>
              <summary>{t("setup.kits.warnings")}</summary>
              <ul>
                {found.warnings.map((warning) => (
                  <li key={warning}>{warning}</li>
                ))}
              </ul>
            </details>
          )}
          <KitItems
            items={found.items}
            picks={withNeeds(picks, found.items)}
            names={names}
            broadcaster={broadcaster}
            onPick={setPicks}
            onNames={(place, wanted) => setNames({ ...names, [place]: wanted })}
          />
          <div className="d-flex gap-2 save-row">
            <Button disabled={picks.size === 0} onClick={() => void take()}>
              {t("setup.kits.takes", { count: withNeeds(picks, found.items).size })}
            </Button>
            <Button variant="outline-secondary" onClick={() => setFound(null)}>
              {t("setup.kits.again")}
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
