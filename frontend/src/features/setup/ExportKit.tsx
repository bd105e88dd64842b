import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { useTelling } from "../../ui/Notice";
import { bySection, placed } from "./kit";

/** Hands a file to the browser. */
function save(name: string, text: string, type: string) {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}

/** All settings or some of them as a kit, and the commands as a table. */
export function ExportKit({ places }: { places: string[] }) {
  const { t } = useTranslation();
  const { complain } = useTelling();
  const [some, setSome] = useState(false);
  const [ticked, setTicked] = useState<Set<string>>(new Set());

  const tick = (wanted: string[], on: boolean) => {
    const now = new Set(ticked);
    for (const place of wanted) on ? now.add(place) : now.delete(place);
    setTicked(now);
  };
  const kit = async () => {
    try {
      const body = { places: some ? places.filter((place) => ticked.has(place)) : null };
      const made = await ask(api.POST("/api/kits/export", { body }));
      save("kit.json", JSON.stringify(made, null, 2), "application/json");
    } catch (error) {
      complain(error);
    }
  };
  const table = async () => {
    try {
      const text = await ask(api.GET("/api/kits/commands.csv", { parseAs: "text" }));
      save("commands.csv", String(text), "text/csv");
    } catch (error) {
      complain(error);
    }
  };
  return (
    <section>
      <h3>{t("setup.kits.out")}</h3>
      <div className="moods kit-scope">
        {([false, true] as const).map((one) => (
          <label key={String(one)} className={some === one ? "chosen" : ""}>
            <input type="radio" name="kit-scope" checked={some === one} onChange={() => setSome(one)} />
            {t(one ? "setup.kits.some" : "setup.kits.all")}
          </label>
        ))}
      </div>
      {some && (
        <>
          <p className="quiet small">{t("setup.kits.outHelp")}</p>
          <div className="kit-places">
            {bySection(places, (place) => place).map(([section, all]) => (
              <fieldset key={section}>
                <legend>
                  <Form.Check
                    id={`out-${section}`}
                    label={t(`setup.kits.sections.${section}`, { defaultValue: section })}
                    checked={all.every((place) => ticked.has(place))}
                    onChange={(event) => tick(all, event.target.checked)}
                  />
                </legend>
                {all.map((place) => (
                  <Form.Check
                    key={place}
                    id={`out-${place}`}
                    label={placed(place)[1] || section}
                    checked={ticked.has(place)}
                    onChange={(event) => tick([place], event.target.checked)}
                  />
                ))}
              </fieldset>
            ))}
          </div>
        </>
      )}
      <div className="d-flex gap-2">
        <Button disabled={some && ticked.size === 0} onClick={() => void kit()}>
          {t("setup.kits.download")}
        </Button>
        <Button variant="outline-secondary" onClick={() => void table()}>
          {t("setup.kits.table")}
        </Button>
      </div>
    </section>
  );
}
