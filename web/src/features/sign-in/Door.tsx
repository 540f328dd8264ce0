import { Alert, Form } from "antd";
import { useState, type ReactNode } from "react";
import "../../shared/frame.css";
import "./door.css";

/** A form that stands alone on its page: signing in, the first run, a new book. */
export function Door<T extends object>({
  title,
  initial,
  onSend,
  children,
}: {
  title: string;
  initial?: Partial<T>;
  onSend: (values: T) => Promise<void>;
  children: ReactNode;
}) {
  const [problem, setProblem] = useState("");
  const send = async (values: T) => {
    try {
      setProblem("");
      await onSend(values);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <main className="door">
      <Form<T>
        layout="vertical"
        className="sheet"
        initialValues={initial}
        onFinish={(values) => void send(values)}
        requiredMark={false}
      >
        <span className="wordmark">
          Rendal<span>.</span>
        </span>
        <h1 style={{ marginBottom: 12 }}>{title}</h1>
        {problem && <Alert type="error" title={problem} style={{ marginBottom: 12 }} />}
        {children}
      </Form>
    </main>
  );
}
