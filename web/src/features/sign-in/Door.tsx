import { Alert, Form } from "antd";
import { useState, type ReactNode } from "react";
import signInStyles from "./sign-in.module.css";

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
    <main className={signInStyles.door}>
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
        <h1 className="below-12">{title}</h1>
        {problem && <Alert className="below-12" type="error" title={problem} />}
        {children}
      </Form>
    </main>
  );
}
