import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask, type Schemas } from "../../api/client";
import { draw } from "../../card/draw";
import { AlsoEditing } from "../../ui/AlsoEditing";
import { Choice } from "../../ui/Choice";
import { Confirm } from "../../ui/Confirm";
import { CopyField } from "../../ui/CopyField";
import { useTelling } from "../../ui/Notice";
import { SaveRow } from "../../ui/SaveRow";
import { useEntry } from "../../ui/useEntry";
import { useLive } from "../../ui/useLive";
import { useRun } from "../../ui/useRun";

type Style = Schemas["CardStyle"];
const SIZES = { least: 12, most: 300 };

/** A stage card: how it looks, as the video software shows it, and the address to give to that. */
export function CardEditor({ card }: { card: string }) {
  const { data } = useQuery({ queryKey: ["cards"], queryFn: () => ask(api.GET("/api/stage")) });
  const view = data?.cards.find((one) => one.card === card);
  return view ? <OneCard key={card} view={view} /> : null;
}

function OneCard({ view }: { view: Schemas["CardView"] }) {
  const { t } = useTranslation();
  const { card } = view;
  const queries = useQueryClient();
  const { tell } = useTelling();
  const run = useRun();
  const live = useLive((state) => state.parts.counters?.find((one) => `counter:${one.name}` === card));
  const params = { path: { card } };
  const anew = () => queries.invalidateQueries({ queryKey: ["cards"] });
  const entry = useEntry<Style, unknown>({
    key: `card.${card}`,
    saved: view.style,
    revision: view.revision,
    fields: [],
    unsaved: (draft) => [{ path: `card.${card}`, value: draft }],
    put: (style, revision) =>
      ask(api.PUT("/api/stage/{card}/style", { params, body: { style, revision: revision ?? "" } })),
    onSaved: async () => {
      await anew();
      tell(t("stage.card.saved"));
    },
  });
  const { draft: style, change } = entry;
  return (
    <section className="card-editor" aria-labelledby="card-title">
      <div className="chosen-head">
        <h3 id="card-title">{t(card === "shoutout" ? "stage.card.lastShoutout" : "stage.card.title")}</h3>
        {entry.dirty && <span className="chip straw">{t("commands.unsaved")}</span>}
        <AlsoEditing place={`card.${card}`} />
      </div>
      <p className="quiet">{t("stage.card.lead")}</p>
      <div className="two-sides">
        <Form
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void entry.save();
          }}
        >
          <div className="pair">
            <Form.Group className="mb-3" controlId="card-size">
              <Form.Label>{t("stage.card.size")}</Form.Label>
              <Form.Control
                type="number"
                min={SIZES.least}
                max={SIZES.most}
                value={style.size}
                onChange={(event) => change({ size: Number(event.target.value) })}
              />
            </Form.Group>
            <Form.Group className="mb-3" controlId="card-colour">
              <Form.Label>{t("stage.card.colour")}</Form.Label>
              <Form.Control
                type="color"
                value={style.colour}
                onChange={(event) => change({ colour: event.target.value })}
              />
            </Form.Group>
            <Choice
              id="card-typeface"
              label={t("stage.card.typeface")}
              value={style.typeface}
              values={["text", "title"]}
              words={(one) => t(`stage.card.typefaces.${one}`)}
              onChange={(typeface) => change({ typeface: typeface as Style["typeface"] })}
            />
            <Choice
              id="card-align"
              label={t("stage.card.align")}
              value={style.align}
              values={["left", "centre", "right"]}
              words={(one) => t(`stage.card.aligns.${one}`)}
              onChange={(align) => change({ align: align as Style["align"] })}
            />
            <Choice
              id="card-ground"
              label={t("stage.card.ground")}
              value={style.ground}
              values={["none", "sheet"]}
              words={(one) => t(`stage.card.grounds.${one}`)}
              onChange={(ground) => change({ ground: ground as Style["ground"] })}
            />
          </div>
          <Form.Check
            type="switch"
            id="card-label"
            label={t("stage.card.label")}
            checked={style.label}
            onChange={(event) => change({ label: event.target.checked })}
          />
          <SaveRow
            dirty={entry.dirty}
            problem={entry.problem?.detail ?? null}
            mine={style}
            theirs={entry.theirs}
            onKeep={(mix) => void entry.saveOver(mix as Style)}
            onDiscard={entry.discard}
            may
          />
        </Form>
        <CardPreview
          label={live?.label ?? view.label}
          value={live ? String(live.value) : view.value}
          style={style}
        />
      </div>
      <CopyField
        id="card-address"
        label={t("stage.card.address")}
        help={t("stage.card.addressHelp")}
        value={view.address}
        secret
      >
        <Confirm
          words={t("stage.card.renew")}
          sure={t("stage.card.renewSure")}
          go={t("stage.card.renewNow")}
          onGo={() =>
            void run(ask(api.POST("/api/stage/{card}/key", { params })), t("stage.card.renewed")).then(anew)
          }
        />
      </CopyField>
    </section>
  );
}

/** The same drawing as on the card's own page, over a picture of a bright and a dark scene. */
function CardPreview({ label, value, style }: { label: string; value: string; style: Style }) {
  const { t } = useTranslation();
  const empty = !label && !value;
  const bright = useRef<HTMLDivElement>(null);
  const dark = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const state = { label: empty ? "Basket weaving" : label, value: empty ? "Wicker Works" : value, style };
    for (const scene of [bright.current, dark.current]) if (scene) draw(scene, state);
  }, [label, value, style, empty]);
  return (
    <figure className="card-scenes" aria-label={t("stage.card.preview")}>
      <div className="scene bright">
        <div ref={bright} />
      </div>
      <div className="scene dark" aria-hidden="true">
        <div ref={dark} />
      </div>
      <figcaption className="quiet">{t(empty ? "stage.card.sample" : "stage.card.now")}</figcaption>
    </figure>
  );
}
