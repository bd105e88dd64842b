import { useEffect, useId, useRef, useState } from "react";
import { Alert, Button } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { differences, mixOf, type Say } from "./differences";
import { fieldLabel } from "./entries";

type Props = {
  mine: unknown;
  theirs: unknown;
  say?: Say;
  onKeep: (whole: unknown) => void;
  onTakeTheirs: () => void;
};

/** Two saves of the same thing, field by field: mine, theirs, or of each field the one that is chosen. */
export function Mix({ mine, theirs, say, onKeep, onTakeTheirs }: Props) {
  const { t } = useTranslation();
  const id = useId();
  const [taken, setTaken] = useState<string[]>([]);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.scrollIntoView({ block: "nearest" });
  }, []);
  const rows = differences(mine, theirs, say);
  const mixed = taken.length > 0 && taken.length < rows.length;
  const choose = (field: string, their: boolean) =>
    setTaken((before) => (their ? [...before, field] : before.filter((one) => one !== field)));
  const side = (field: string, their: boolean, words: string) => (
    <td className={taken.includes(field) === their ? "kept" : ""}>
      <label>
        <input
          type="radio"
          name={`${id}-${field}`}
          checked={taken.includes(field) === their}
          onChange={() => choose(field, their)}
        />{" "}
        {words || "—"}
      </label>
    </td>
  );
  return (
    <Alert variant="warning" ref={box}>
      <p>{t("commands.theirs")}</p>
      <table className="sides mix">
        <thead>
          <tr>
            <td />
            <th>{t("commands.mine")}</th>
            <th>{t("commands.other")}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.field} data-field={row.field}>
              <th>{fieldLabel(t, row.field)}</th>
              {side(row.field, false, row.left)}
              {side(row.field, true, row.right)}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="d-flex flex-wrap gap-2">
        <Button size="sm" onClick={() => onKeep(mine)}>
          {t("commands.keepMine")}
        </Button>
        <Button size="sm" variant="outline-secondary" onClick={onTakeTheirs}>
          {t("commands.takeTheirs")}
        </Button>
        <Button
          size="sm"
          variant="outline-secondary"
          disabled={!mixed}
          onClick={() => onKeep(mixOf(mine, theirs, taken))}
        >
          {t("commands.keepMix")}
        </Button>
      </div>
    </Alert>
  );
}
