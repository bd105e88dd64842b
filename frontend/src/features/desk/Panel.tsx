import { type ReactNode, useId, useState } from "react";

/** A small panel of the bench that can be folded; it stays folded on this device. */
export function Panel({
  name,
  title,
  aside,
  children,
}: {
  name: string;
  title: string;
  aside?: ReactNode;
  children: ReactNode;
}) {
  const key = `gentlegate.folded.${name}`;
  const id = useId();
  const [folded, setFolded] = useState(() => localStorage.getItem(key) === "yes");
  const turn = () => {
    localStorage.setItem(key, folded ? "no" : "yes");
    setFolded(!folded);
  };
  return (
    <section className={`panel panel-${name}`}>
      <div className="panel-head">
        <h2>
          <button type="button" aria-expanded={!folded} aria-controls={id} onClick={turn}>
            {title}
          </button>
        </h2>
        <span className="quiet">{aside}</span>
      </div>
      <div id={id} hidden={folded}>
        {children}
      </div>
    </section>
  );
}
