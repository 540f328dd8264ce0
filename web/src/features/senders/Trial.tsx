import type { Schemas } from "../../shared/api/client";
import styles from "./Trial.module.css";

type Result = Schemas["TrialResult"];
type Step = Result["answers"][number]["step"];

const steps: Record<Step, string> = {
  name: "Name of the server",
  line: "Line to it",
  certificate: "Certificate",
  "sign-in": "Sign-in",
  address: "Address",
};

/** What came of trying an account, step by step, with what to do about the one that failed. */
export function Trial({ result }: { result: Result }) {
  return (
    <table className={`${styles.trial} ledger`} aria-label="Test results">
      <tbody>
        {result.answers.map((a) => (
          <tr key={a.step}>
            <th scope="row">{steps[a.step]}</th>
            <td className={a.passed ? styles.trialPassed : styles.trialFailed}>
              {a.passed ? "✓ in order" : "✗ fails here"}
            </td>
            <td>
              {a.words}
              {a.remedy && <p>{a.remedy}</p>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
