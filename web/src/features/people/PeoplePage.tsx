import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Checkbox, Input } from "antd";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { useBook, useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { Waiting } from "../../shared/Waiting";
import { basePath } from "../../shared/served";
import styles from "./PeoplePage.module.css";
import { demandSecondPerson, giveBook, peopleOf, takeBookFrom, withdrawInvitation } from "./api";

/** Who may open the book: who has it, who is invited, and inviting one more. */
export function PeoplePage() {
  const book = useBookId();
  const { dayOf } = useClock();
  const firm = useBook();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const again = () => client.invalidateQueries({ queryKey: ["people", book] });
  const people = useQuery({
    queryKey: ["people", book],
    queryFn: () => peopleOf(book),
  });
  const giving = useMutation({
    mutationFn: (to: string) => giveBook(book, { name: to }),
    onSuccess: async () => {
      setName("");
      await again();
    },
  });
  const taking = useMutation({
    mutationFn: ({ id }: Schemas["PersonLine"]) => takeBookFrom(book, id),
    onSuccess: async (_, { isYou }) => {
      if (isYou) {
        await client.resetQueries();
        await navigate("/");
      } else {
        await again();
      }
    },
  });
  const withdrawing = useMutation({
    mutationFn: (id: number) => withdrawInvitation(book, id),
    onSuccess: async () => {
      giving.reset();
      await again();
    },
  });
  const demanding = useMutation({
    mutationFn: (isNeeded: boolean) => demandSecondPerson(book, isNeeded),
    onSettled: again,
  });
  const problem = giving.error ?? taking.error ?? withdrawing.error ?? demanding.error;
  return (
    <div className={styles.people}>
      <h1>Who has this book</h1>
      <p className="quiet">
        Whoever has the book of {firm.data?.name} can do all there is to do in it, under their own name.
      </p>
      {problem && <Alert className="below-12" type="error" title={problem.message} />}
      <Waiting query={people}>
        {(who) => (
          <table className="ledger">
            <thead>
              <tr>
                <th scope="col">Name</th>
                <th scope="col">How it stands</th>
                <th scope="col">
                  <span className="visually-hidden">What can be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {who.people.map((p) => (
                <tr key={p.id}>
                  <td>
                    {p.name}
                    {p.isYou && <span className="quiet"> · you</span>}
                  </td>
                  <td>{p.made ? "has the book, and made it" : "has the book"}</td>
                  <td>
                    {who.people.length > 1 && (p.isYou || !p.made) && (
                      <button type="button" className="link" onClick={() => taking.mutate(p)}>
                        {p.isYou ? "Leave book" : "Remove"}
                        {!p.isYou && <span className="visually-hidden"> {p.name}</span>}
                      </button>
                    )}
                  </td>
                </tr>
              ))}
              {who.invitations.map((i) => (
                <tr key={`invited ${i.id}`}>
                  <td>{i.name}</td>
                  <td>
                    {i.isTooOld ? "the invitation was not followed by " : `invited by ${i.by}, good until `}
                    {dayOf(i.goodUntil)}
                  </td>
                  <td>
                    <button type="button" className="link" onClick={() => withdrawing.mutate(i.id)}>
                      Delete invitation<span className="visually-hidden"> of {i.name}</span>
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Waiting>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          giving.mutate(name);
        }}
      >
        <label htmlFor="given-to">Invite</label>
        <Input
          className="width-260"
          id="given-to"
          placeholder="the name they sign in with"
          value={name}
          maxLength={100}
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="primary" htmlType="submit" loading={giving.isPending} disabled={name.trim() === ""}>
          Invite
        </Button>
      </form>
      {giving.data && <Given given={giving.data} />}
      {people.data && (
        <SecondPerson
          people={people.data}
          isNeeded={demanding.isPending ? demanding.variables : people.data.needsSecondPerson}
          onDemand={demanding.mutate}
        />
      )}
    </div>
  );
}

/** Whether nobody may release what they prepared themselves; whoever made the book decides it. */
function SecondPerson({
  people,
  isNeeded,
  onDemand,
}: {
  people: Schemas["PeopleView"];
  isNeeded: boolean;
  onDemand: (isNeeded: boolean) => void;
}) {
  const maker = people.people.find((p) => p.made);
  return (
    <section className="above-22" aria-label="Releasing rounds">
      <Checkbox checked={isNeeded} disabled={!maker?.isYou} onChange={(e) => onDemand(e.target.checked)}>
        A second person releases every round: nobody releases what they prepared themselves
      </Checkbox>
      {!maker?.isYou && <p className="quiet">{maker ? `${maker.name}, who made the book, decides this.` : ""}</p>}
    </section>
  );
}

/** The address that is to be passed on to who was invited. */
function Given({ given }: { given: Schemas["MadeInvitation"] }) {
  const { dayOf } = useClock();
  const address = `${window.location.origin}${basePath}/join?key=${given.key}`;
  return (
    <section className={`${styles.invitation} sheet`} aria-label={`Invitation of ${given.name}`}>
      <p>
        Pass this address on to {given.name}; there they sign in, or choose a password if they have none yet, and have
        the book. It can be followed once, until {dayOf(given.goodUntil)}, and is not shown again.
      </p>
      <Input readOnly aria-label="Address to pass on" value={address} onFocus={(e) => e.target.select()} />
    </section>
  );
}
