import { Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { written } from "../../ui/differences";
import { SideBySide } from "../../ui/SideBySide";
import { bySection, type Item, isBroadcasters, type Names, placed } from "./kit";

const NAMED = ["commands", "cues", "counters", "rotas"];
const SHOWN = 400;

type Props = {
  items: Item[];
  picks: Set<string>;
  names: Record<string, Names>;
  broadcaster: boolean;
  onPick: (picks: Set<string>) => void;
  onNames: (place: string, names: Names) => void;
};

/** The items of an incoming kit by section: ticked or not, side by side where they differ. */
export function KitItems({ items, picks, names, broadcaster, onPick, onNames }: Props) {
  const { t } = useTranslation();
  const tick = (places: string[], on: boolean) => {
    const now = new Set(picks);
    for (const place of places) on ? now.add(place) : now.delete(place);
    onPick(now);
  };
  const kept = items.some((item) => !broadcaster && isBroadcasters(item.place));
  const free = (item: Item) => item.state !== "same" && (broadcaster || !isBroadcasters(item.place));
  return (
    <>
      {kept && <p className="quiet small">{t("setup.kits.onlyBroadcaster")}</p>}
      {bySection(items, (item) => item.place).map(([section, all]) => {
        const open = all.filter(free);
        return (
          <section key={section} className="kit-section">
            <h4>
              <Form.Check
                id={`in-${section}`}
                disabled={!open.length}
                label={`${t(`setup.kits.sections.${section}`, { defaultValue: section })} (${all.length})`}
                checked={open.length > 0 && open.every((item) => picks.has(item.place))}
                onChange={(event) =>
                  tick(
                    open.map((item) => item.place),
                    event.target.checked,
                  )
                }
              />
            </h4>
            {all.slice(0, SHOWN).map((item) => (
              <Row
                key={item.place}
                item={item}
                picked={picks.has(item.place)}
                free={free(item)}
                names={names[item.place] ?? {}}
                onPick={(on) => tick([item.place], on)}
                onNames={(wanted) => onNames(item.place, wanted)}
              />
            ))}
          </section>
        );
      })}
    </>
  );
}

type RowProps = {
  item: Item;
  picked: boolean;
  free: boolean;
  names: Names;
  onPick: (on: boolean) => void;
  onNames: (names: Names) => void;
};

function Row({ item, picked, free, names, onPick, onNames }: RowProps) {
  const { t } = useTranslation();
  const [section, name] = placed(item.place);
  const alone = item.state === "new" && !item.clashes.length;
  const rename = (old: string, wanted: string) => onNames({ ...names, [old]: wanted });
  return (
    <div className="kit-item" data-place={item.place}>
      <div className="kit-item-head">
        <Form.Check
          id={`in-${item.place}`}
          label={name || section}
          disabled={!free}
          checked={picked}
          onChange={(event) => onPick(event.target.checked)}
        />
        <span className={`chip ${{ new: "moss", same: "quiet", differs: "straw" }[item.state]}`}>
          {t(`setup.kits.states.${item.state}`)}
        </span>
        {alone && <span className="quiet small kit-glance">{glance(item.theirs)}</span>}
        {item.needs.length > 0 && (
          <span className="quiet small">{t("setup.kits.needs", { places: item.needs.join(", ") })}</span>
        )}
      </div>
      {item.clashes.map((clash) => (
        <p key={clash.name} className="clay small mb-1">
          {t("setup.kits.clash", clash)}
        </p>
      ))}
      {item.state === "differs" && (
        <SideBySide
          left={t("setup.kits.ours")}
          right={t("setup.kits.theirs")}
          one={item.ours}
          other={item.theirs}
        />
      )}
      {picked && !alone && NAMED.includes(section) && (
        <div className="kit-names">
          <Form.Control
            size="sm"
            aria-label={t("setup.kits.newName")}
            placeholder={name}
            value={names[name] ?? name}
            onChange={(event) => rename(name, event.target.value)}
          />
          {item.clashes
            .filter((clash) => clash.name.toLowerCase() !== name.toLowerCase())
            .map((clash) => (
              <Form.Control
                key={clash.name}
                size="sm"
                aria-label={t("setup.kits.clashAlias", clash)}
                placeholder={t("setup.kits.clashAlias", clash)}
                value={names[clash.name] ?? clash.name}
                onChange={(event) => rename(clash.name, event.target.value)}
              />
            ))}
        </div>
      )}
    </div>
  );
}

/** The most telling of an item, in a line. */
function glance(value: unknown): string {
  const entry = value as { reply?: unknown; label?: unknown; notices?: unknown[] } | null;
  const text = written(entry?.reply ?? entry?.label ?? (entry?.notices ? "" : value));
  return text.length > 90 ? `${text.slice(0, 89)}…` : text;
}
