import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from "react";
import { Button, Toast, ToastContainer } from "react-bootstrap";
import { Problem } from "../api/client";

type Said = { id: number; text: string; bad: boolean; action?: { label: string; run: () => void } };
type Tell = {
  tell: (text: string, action?: Said["action"]) => void;
  /** Say what went wrong. */
  complain: (error: unknown) => void;
};

const Telling = createContext<Tell>({ tell: () => {}, complain: () => {} });
export const useTelling = () => useContext(Telling);

let next = 1;

/** Short notices at the edge of the page. */
export function Notices({ children }: { children: ReactNode }) {
  const [said, setSaid] = useState<Said[]>([]);
  const add = useCallback((one: Omit<Said, "id">) => {
    setSaid((before) => [...before.slice(-2), { ...one, id: next++ }]);
  }, []);
  const telling = useMemo<Tell>(
    () => ({
      tell: (text, action) => add({ text, bad: false, action }),
      complain: (error) => add({ text: error instanceof Problem ? error.detail : String(error), bad: true }),
    }),
    [add],
  );
  const drop = (id: number) => setSaid((before) => before.filter((one) => one.id !== id));
  return (
    <Telling.Provider value={telling}>
      {children}
      <ToastContainer className="notices" aria-live="polite">
        {said.map((one) => (
          <Toast
            key={one.id}
            onClose={() => drop(one.id)}
            autohide
            delay={one.action ? 12000 : 5000}
            animation={false}
          >
            <Toast.Body className={one.bad ? "bad" : ""}>
              <span>{one.text}</span>
              {one.action && (
                <Button
                  size="sm"
                  variant="outline-primary"
                  onClick={() => {
                    one.action?.run();
                    drop(one.id);
                  }}
                >
                  {one.action.label}
                </Button>
              )}
            </Toast.Body>
          </Toast>
        ))}
      </ToastContainer>
    </Telling.Provider>
  );
}
