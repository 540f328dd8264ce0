import { useSession } from "../../shared/useBook";
import { Waiting } from "../../shared/Waiting";
import { LetIn } from "./LetIn";
import { NoticeAddress } from "./NoticeAddress";
import { Password } from "./Password";
import { Signature } from "./Signature";
import { Sessions } from "./Sessions";
import styles from "./AccountPage.module.css";

/** What belongs to the person who is signed in, whichever book is open. */
export function AccountPage() {
  const { session } = useSession();
  return (
    <div className={styles.account}>
      <h1>Your account</h1>
      <Waiting query={session}>
        {({ name, address, signature, administers }) => (
          <>
            <p className="quiet">You sign in as {name}.</p>
            <Password name={name} />
            <NoticeAddress address={address} />
            <Signature signature={signature} />
            <Sessions />
            {administers && <LetIn />}
          </>
        )}
      </Waiting>
    </div>
  );
}
