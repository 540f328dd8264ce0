import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button } from "antd";

import { count } from "../../shared/figure";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import { browserName } from "./browserName";
import { endOtherSessions, sessionList } from "./api";

/** Where the person is signed in, and signing out everywhere else. */
export function Sessions() {
  const client = useQueryClient();
  const { message } = App.useApp();
  const { moment } = useClock();
  const sessions = useQuery({ queryKey: ["sessions"], queryFn: () => sessionList() });
  const ending = useMutation({
    mutationFn: () => endOtherSessions(),
    onSuccess: async ({ sessions: ended }) => {
      message.success(`${count(ended, "session")} ended.`);
      await client.invalidateQueries({ queryKey: ["sessions"] });
    },
    onError: (e) => void message.error(e.message),
  });
  return (
    <section className="sheet" aria-label="Signed in">
      <h2>Signed in</h2>
      <Waiting query={sessions}>
        {(all) => (
          <>
            <table className="ledger">
              <thead>
                <tr>
                  <th scope="col">Browser</th>
                  <th scope="col">Since</th>
                  <th scope="col">Last used</th>
                </tr>
              </thead>
              <tbody>
                {all.map((s, i) => (
                  <tr key={i}>
                    <td title={s.browser}>
                      {browserName(s.browser)}
                      {s.isThis && <span className="quiet"> · this one</span>}
                    </td>
                    <td>{moment(s.beganAt)}</td>
                    <td>{moment(s.usedAt)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {all.length > 1 && (
              <Button size="small" loading={ending.isPending} onClick={() => ending.mutate()}>
                Sign out everywhere else
              </Button>
            )}
          </>
        )}
      </Waiting>
    </section>
  );
}
