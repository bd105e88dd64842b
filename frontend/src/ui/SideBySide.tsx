import { useTranslation } from "react-i18next";
import { differences } from "./differences";
import { fieldLabel } from "./entries";

type Props = { left: string; right: string; one: unknown; other: unknown };

/** Two versions of something, field by field, as far as they differ. */
export function SideBySide({ left, right, one, other }: Props) {
  const { t } = useTranslation();
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
        {differences(one, other).map((row) => (
          <tr key={row.field}>
            <th>{fieldLabel(t, row.field)}</th>
            <td>{row.left || "—"}</td>
            <td>{row.right || "—"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
