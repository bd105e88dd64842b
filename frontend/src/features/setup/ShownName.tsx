import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useTranslation } from "react-i18next";
import { api, ask } from "../../api/client";
import { useTelling } from "../../ui/Notice";

/** What the Gatekeeper is called on a platform; the platform itself keeps it. */
export function ShownName({ platform, owns }: { platform: string; owns: boolean }) {
  const { t } = useTranslation();
  const queries = useQueryClient();
  const { tell, complain } = useTelling();
  const params = { path: { platform } };
  const { data } = useQuery({
    queryKey: ["shown-name", platform],
    queryFn: () => ask(api.GET("/api/platforms/{platform}/name", { params })),
    retry: false,
  });
  const [typed, setTyped] = useState<string | null>(null);
  if (!data) return null;
  const name = typed ?? data.name;
  const call = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const now = await ask(api.PUT("/api/platforms/{platform}/name", { params, body: { name } }));
      setTyped(null);
      tell(t("joining.called", { name: now.name }));
      await queries.invalidateQueries({ queryKey: ["shown-name", platform] });
    } catch (error) {
      complain(error);
    }
  };
  if (!owns) return <p className="quiet">{t("joining.isCalled", { name: data.name })}</p>;
  return (
    <Form className="shown-name" onSubmit={(event) => void call(event)}>
      <Form.Label htmlFor={`shown-${platform}`}>{t("joining.shownName")}</Form.Label>
      <Form.Control
        size="sm"
        id={`shown-${platform}`}
        value={name}
        onChange={(event) => setTyped(event.target.value)}
      />
      <Button
        size="sm"
        type="submit"
        variant="outline-secondary"
        disabled={!name.trim() || name.trim() === data.name}
      >
        {t("joining.callIt")}
      </Button>
    </Form>
  );
}
