import type { Difference } from "./differences";

type Props = { left: string; right: string; rows: Difference[] };

/** Two versions of something, field by field. */
export function SideBySide({ left, right, rows }: Props) {
  return (
    <table className="sides">
      <thead>
        <tr>
          <td />
          <th>{left}</th>
          <th>{right}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.field}>
            <th>{row.field}</th>
            <td>{row.left || "—"}</td>
            <td>{row.right || "—"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
