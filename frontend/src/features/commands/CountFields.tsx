import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import type { Draft } from "./types";

type Counts = Draft["counts"];
type Props = {
  counts: Counts;
  counters: string[];
  problem: string | null;
  onChange: (counts: Counts) => void;
};

/** Counters that each use moves, before the reply is made. */
export function CountFields({ counts, counters, problem, onChange }: Props) {
  const { t } = useTranslation();
  const change = (place: number, changes: Partial<Counts[number]>) =>
    onChange(counts.map((step, index) => (index === place ? { ...step, ...changes } : step)));
  return (
    <div className="counts mb-3">
      {counts.map((step, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a step is its place in the list
        <div className="count-step" key={place}>
          <Form.Select
            aria-label={t("commands.counter")}
            value={step.counter}
            onChange={(event) => change(place, { counter: event.target.value })}
          >
            {[...new Set([...counters, step.counter])].map((one) => (
              <option key={one}>{one}</option>
            ))}
          </Form.Select>
          <Form.Select
            aria-label={t("commands.countHow")}
            value={step.how}
            onChange={(event) => change(place, { how: event.target.value as "by" | "set" })}
          >
            {(["by", "set"] as const).map((how) => (
              <option key={how} value={how}>
                {t(`commands.countHows.${how}`)}
              </option>
            ))}
          </Form.Select>
          <Form.Control
            aria-label={t("commands.countAmount")}
            value={step.amount}
            isInvalid={Boolean(problem)}
            onChange={(event) => change(place, { amount: event.target.value })}
          />
          <Button
            variant="outline-secondary"
            onClick={() => onChange(counts.filter((_, index) => index !== place))}
          >
            {t("commands.countDrop")}
          </Button>
        </div>
      ))}
      {counters[0] !== undefined && (
        <Button
          variant="outline-secondary"
          size="sm"
          onClick={() => onChange([...counts, { counter: counters[0] as string, how: "by", amount: "1" }])}
        >
          {t("commands.countAdd")}
        </Button>
      )}
      <Form.Text className={problem ? "text-danger d-block" : "d-block"}>
        {problem ?? t(counters.length ? "commands.countsHelp" : "commands.noCounters")}
      </Form.Text>
    </div>
  );
}
