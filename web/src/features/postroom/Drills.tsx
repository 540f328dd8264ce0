import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Input, InputNumber, Select } from "antd";
import { useState } from "react";
import type { Schemas } from "../../shared/api/client";
import { count } from "../../shared/figure";
import { useBookId } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import styles from "./Drills.module.css";
import { drillList, endDrills, saveDrill, setPostroomLimits } from "./api";

type Drill = Schemas["DrillView"];
type Step = Drill["step"];
type Act = Drill["act"];

const steps: Partial<Record<Step, string>> = {
  "sign-in": "at the sign-in",
  sender: "at the sender’s address",
  recipient: "at a recipient",
  data: "before the message",
  end: "after the message",
};

const acts: Record<Act, string> = {
  answer: "it answers",
  cut: "it cuts the line",
  "keep-and-cut": "it keeps the message and cuts the line",
  drip: "it answers a letter a second",
};

/** Answers that servers really give; any other can be typed. */
const usualAnswers = [
  "421 4.3.2 closing for now",
  "450 4.2.1 mailbox busy",
  "451 4.3.0 come back later",
  "452 4.3.1 no room left",
  "535 5.7.8 name or password is wrong",
  "550 5.1.1 no such mailbox",
  "552 5.3.4 message too large",
  "554 5.7.1 looks like spam",
];

/** How the postroom is to misbehave, so that what follows can be practised. */
export function Drills() {
  const book = useBookId();
  const client = useQueryClient();
  const key = ["drills", book];
  const going = useQuery({
    queryKey: key,
    queryFn: () => drillList(book),
    refetchInterval: 2000,
  });
  const [drill, setDrill] = useState<Drill>({
    step: "end",
    act: "answer",
    answer: usualAnswers[2] ?? "",
    to: "",
    left: 1,
  });
  const change = (part: Partial<Drill>) => setDrill({ ...drill, ...part });
  const keep = { onSuccess: (now: Schemas["DrillsView"]) => client.setQueryData(key, now) };
  const begin = useMutation({
    mutationFn: (body: Drill) => saveDrill(book, body),
    ...keep,
  });
  const limit = useMutation({
    mutationFn: (body: Schemas["LimitsRequest"]) => setPostroomLimits(book, body),
    ...keep,
  });
  const end = useMutation({
    mutationFn: () => endDrills(book),
    ...keep,
  });
  const problem = begin.error ?? limit.error ?? end.error;
  return (
    <Waiting query={going}>
      {(now) => (
        <section className={styles.drills} aria-label="Drills">
          <p className="quiet">
            Let the postroom misbehave as servers do, and see what becomes of the parcels. An address asks for it by
            itself: drill.end.451.once@inn.example, drill.recipient.550@…, drill.end.keep-and-cut@…
          </p>
          <form
            onSubmit={(e) => {
              e.preventDefault();
              begin.mutate(drill);
            }}
          >
            <Select
              size="small"
              aria-label="Where"
              value={drill.step}
              popupMatchSelectWidth={false}
              options={Object.entries(steps).map(([value, label]) => ({ value, label }))}
              onChange={(step: Step) =>
                change({ step, act: step === "end" || drill.act !== "keep-and-cut" ? drill.act : "cut" })
              }
            />
            <Select
              size="small"
              aria-label="What happens"
              value={drill.act}
              popupMatchSelectWidth={false}
              options={Object.entries(acts)
                .filter(([act]) => drill.step === "end" || act !== "keep-and-cut")
                .map(([value, label]) => ({ value, label }))}
              onChange={(act: Act) => change({ act })}
            />
            {drill.act === "answer" && (
              <>
                <Input
                  className="width-240"
                  size="small"
                  aria-label="Answer"
                  list="usual-answers"
                  value={drill.answer}
                  onChange={(e) => change({ answer: e.target.value })}
                />
                <datalist id="usual-answers">
                  {usualAnswers.map((a) => (
                    <option key={a} value={a} />
                  ))}
                </datalist>
              </>
            )}
            {drill.step !== "sign-in" && drill.step !== "sender" && (
              <Input
                className="width-140"
                size="small"
                aria-label="Only for addresses that hold"
                placeholder="to anybody"
                value={drill.to}
                onChange={(e) => change({ to: e.target.value })}
              />
            )}
            <InputNumber
              className="width-110"
              size="small"
              aria-label="How often"
              min={1}
              precision={0}
              controls={false}
              suffix="times"
              placeholder="always"
              value={drill.left}
              onChange={(left) => change({ left })}
            />
            <Button size="small" htmlType="submit" loading={begin.isPending}>
              Begin
            </Button>
          </form>
          <div className={styles.drillLimits}>
            <label>
              takes
              <InputNumber
                className="width-210"
                size="small"
                min={1}
                precision={0}
                controls={false}
                suffix="a minute"
                placeholder="as many as come"
                value={now.aMinute}
                onChange={(aMinute) => limit.mutate({ aMinute, largestBytes: now.largestBytes })}
              />
            </label>
            <label>
              up to
              <InputNumber
                className="width-130"
                size="small"
                min={0.001}
                controls={false}
                suffix="MB each"
                value={Math.round(now.largestBytes / 100_000) / 10}
                onChange={(mb) =>
                  mb && limit.mutate({ aMinute: now.aMinute, largestBytes: Math.round(mb * 1_000_000) })
                }
              />
            </label>
            {now.drills.length > 0 && (
              <Button size="small" onClick={() => end.mutate()}>
                End all
              </Button>
            )}
          </div>
          {problem && <Alert type="error" title={problem.message} />}
          <ul>
            {now.drills.map((d, i) => (
              <li key={i}>
                {steps[d.step]}
                {d.to && ` with “${d.to}”`} {acts[d.act]}
                {d.answer && ` “${d.answer}”`}
                <span className="quiet">
                  {" "}
                  {d.left === null ? "every time" : d.left === 1 ? "once more" : `${count(d.left, "time")} more`}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </Waiting>
  );
}
