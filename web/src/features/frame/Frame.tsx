import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Dropdown, Input, Modal, type InputRef } from "antd";
import { useRef, useState } from "react";
import { Navigate, NavLink, useNavigate } from "react-router";
import { Ended } from "./Ended";
import { PageBoundary } from "../../shared/PageBoundary";
import { useTone } from "../../shared/tone";
import { signOut, useBookId, useSession } from "../../shared/useBook";
import { useKeys } from "../../shared/useKeys";
import styles from "./Frame.module.css";
import { postroomMessages } from "../postroom/api";

const places = [
  ["today", "Today"],
  ["ledger", "Ledger"],
  ["customers", "Customers"],
  ["rounds", "Rounds"],
  ["words", "Words & paper"],
  ["dispatch", "Dispatch log"],
] as const;

const keyWords: [string, string][] = [
  ["J / K", "next and previous parcel or row"],
  ["H", "hold the parcel, or let it stand ready again"],
  ["T", "change whom the message of the parcel goes to"],
  ["M or Space", "mark the parcel, or not any more; ⇧J / ⇧K mark on the way"],
  ["A", "mark all parcels that are listed, or none"],
  ["⇧H ⇧X ⇧R", "hold, take out or release all that are marked"],
  ["X", "leave the customer out of the round, with a reason"],
  ["C", "correct the customer’s card"],
  ["P Tab", "go through what came from data, to put it right where it was read from"],
  ["1 2 3 4", "message, statement, where the figures come from, words"],
  ["F", "jump to a customer in the round"],
  ["E", "rehearse: send a few to yourself first"],
  ["R", "release"],
  ["A N U", "of a copy: assign it to an invoice, say that it is none, undo"],
  ["N / P", "next and previous finding of a file"],
  ["Enter", "correct the value in the chosen cell of a file"],
  ["L", "leave out the row of a file, with a reason"],
  ["K", "keep the file that is looked at"],
  ["/", "find a customer, number or address"],
  ["?", "this list"],
];

/** The top line with the places, around every page of a book. */
export function Frame() {
  const { session, signedOut } = useSession();
  const book = useBookId();
  const navigate = useNavigate();
  const client = useQueryClient();
  const { tone, turn } = useTone();
  const search = useRef<InputRef>(null);
  const [help, setHelp] = useState(false);
  const postroom = useQuery({
    queryKey: ["postroom", book, ""],
    queryFn: () => postroomMessages(book),
    enabled: session.data !== undefined,
    refetchInterval: 5000,
  });
  useKeys({ "/": () => search.current?.focus(), "?": () => setHelp(true) });

  if (signedOut) {
    return <Navigate to="/sign-in" replace />;
  }
  if (!session.data) {
    return session.error && <Alert className="around-18" type="error" title={session.error.message} />;
  }

  const leave = async () => {
    await signOut();
    client.clear();
    await navigate("/sign-in");
  };
  const books = session.data.books;
  const name = books.find((b) => b.id === book)?.name ?? "";
  return (
    <div className={styles.frame}>
      <header className={styles.frameTop}>
        <a className={styles.skip} href="#content">
          To the content
        </a>
        <span className="wordmark">
          Rendal<span>.</span>
        </span>
        <Dropdown
          trigger={["click"]}
          menu={{
            items: [
              ...books.map((b) => ({ key: String(b.id), label: b.name })),
              { type: "divider" as const },
              { key: "new", label: "New book…" },
            ],
            onClick: ({ key }) => void navigate(key === "new" ? "/new-book" : `/books/${key}/today`),
          }}
        >
          <Button size="small" aria-label={`Book: ${name}. Change`}>
            <span className={styles.frameName}>{name}</span> <span aria-hidden>▾</span>
          </Button>
        </Dropdown>
        <nav aria-label="Places">
          {places.map(([path, label]) => (
            <NavLink key={path} to={`/books/${book}/${path}`}>
              {label}
            </NavLink>
          ))}
        </nav>
        <Input
          ref={search}
          size="small"
          className={styles.frameSearch}
          aria-label="Find a customer, number or address"
          placeholder="Find customer, address"
          suffix={<kbd>/</kbd>}
          onPressEnter={(e) =>
            void navigate(`/books/${book}/customers?search=${encodeURIComponent(e.currentTarget.value)}`)
          }
        />
        <NavLink className={styles.framePostroom} to={`/books/${book}/postroom`}>
          Postroom{postroom.data && postroom.data.count > 0 ? ` · ${postroom.data.count.toLocaleString("en-GB")}` : ""}
        </NavLink>
        <Dropdown
          trigger={["click"]}
          menu={{
            items: [
              { key: "tone", label: tone === "light" ? "Dark tones" : "Light tones" },
              { key: "account", label: "Your account" },
              { key: "people", label: "Who has this book" },
              { key: "keys", label: "Keys" },
              { key: "out", label: "Sign out" },
            ],
            onClick: ({ key }) =>
              key === "tone"
                ? turn()
                : key === "keys"
                  ? setHelp(true)
                  : key === "account" || key === "people"
                    ? void navigate(`/books/${book}/${key}`)
                    : void leave(),
          }}
        >
          <Button size="small" type="text" aria-label={`${session.data.name}: settings and sign out`}>
            <span className={styles.frameName}>{session.data.name}</span> <span aria-hidden>▾</span>
          </Button>
        </Dropdown>
      </header>
      <main id="content" className={styles.frameMain}>
        <PageBoundary />
      </main>
      <Ended />
      <Modal title="Keys" open={help} footer={null} onCancel={() => setHelp(false)}>
        <table>
          <tbody>
            {keyWords.map(([key, words]) => (
              <tr key={key}>
                <td className={styles.key}>
                  <kbd>{key}</kbd>
                </td>
                <td>{words}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Modal>
    </div>
  );
}
