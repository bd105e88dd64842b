import { Component, type ReactNode } from "react";
import { Button } from "react-bootstrap";
import i18next from "../words";

type Props = {
  /** Where one is; going elsewhere tries again. */
  at: string;
  children: ReactNode;
};

/** Keeps a fault in one room from taking the others along; what was typed is kept by the forms themselves. */
export class Fault extends Component<Props, { failed: boolean }> {
  state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  componentDidUpdate(before: Props) {
    if (this.state.failed && before.at !== this.props.at) this.setState({ failed: false });
  }

  render() {
    if (!this.state.failed) return this.props.children;
    return (
      <main className="fault">
        <h1 className="room-title">{i18next.t("fault.title")}</h1>
        <p>{i18next.t("fault.says")}</p>
        <Button onClick={() => location.reload()}>{i18next.t("fault.again")}</Button>
      </main>
    );
  }
}
