import { useRef } from "react";
import { useTranslation } from "react-i18next";
import { type Bar, caughtBy } from "./tuning";

type Props = {
  bars: Bar[];
  end: number;
  limit: number;
  step: number;
  reached: boolean;
  label: string;
  words: (value: number) => string;
  disabled: boolean;
  onLimit: (limit: number) => void;
};

const WIDTH = 560;
const HEIGHT = 130;

/** How this channel's lines measure, with the limit as a line that can be dragged, also by the keyboard. */
export function Histogram({ bars, end, limit, step, reached, label, words, disabled, onLimit }: Props) {
  const { t } = useTranslation();
  const frame = useRef<SVGSVGElement>(null);
  const tallest = Math.sqrt(Math.max(1, ...bars.map((bar) => bar.others + bar.regulars)));
  const x = (value: number) => (Math.min(value, end) / end) * WIDTH;
  const height = (count: number) => (Math.sqrt(count) / tallest) * (HEIGHT - 12);
  const place = (clientX: number) => {
    const box = frame.current?.getBoundingClientRect();
    if (!box || disabled) return;
    const value = Math.round((((clientX - box.left) / box.width) * end) / step) * step;
    onLimit(Math.min(end, Math.max(step, value)));
  };
  return (
    <div className="histogram">
      <svg
        ref={frame}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        aria-hidden="true"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          place(event.clientX);
        }}
        onPointerMove={(event) => event.buttons === 1 && place(event.clientX)}
      >
        {bars.map((bar) => {
          const caught = caughtBy([(bar.from + bar.to) / 2], limit, reached) > 0;
          const whole = height(bar.others + bar.regulars);
          const regulars = bar.regulars ? (whole * bar.regulars) / (bar.others + bar.regulars) : 0;
          const width = Math.max(1, x(bar.to) - x(bar.from) - 2);
          return (
            <g key={bar.from} className={caught ? "caught" : ""}>
              <rect
                className="others"
                x={x(bar.from) + 1}
                y={HEIGHT - whole}
                width={width}
                height={whole - regulars}
              />
              <rect
                className="regulars"
                x={x(bar.from) + 1}
                y={HEIGHT - regulars}
                width={width}
                height={regulars}
              />
            </g>
          );
        })}
        <line x1={x(limit)} x2={x(limit)} y1={0} y2={HEIGHT} />
      </svg>
      <input
        type="range"
        className="form-range"
        min={step}
        max={end}
        step={step}
        value={Math.min(limit, end)}
        disabled={disabled}
        aria-label={`${t("rules.drag")}: ${label}`}
        aria-valuetext={words(limit)}
        onChange={(event) => onLimit(Number(event.target.value))}
      />
      <div className="axis quiet small">
        <span>{words(0)}</span>
        <span className="key">
          <i className="others" /> {t("rules.others")} <i className="regulars" /> {t("rules.regulars")}
        </span>
        <span>{words(end)}</span>
      </div>
    </div>
  );
}
