import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Alert, Button } from "antd";

import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import { useHistory } from "./useHistory";
import { addressIsGood } from "./api";

/** The addresses on a customer's card that mail came back from; parcels to them wait until they are put right. */
export function ReturnedAddresses({ customer }: { customer: string }) {
  const book = useBookId();
  const { dayOf } = useClock();
  const client = useQueryClient();
  const history = useHistory(customer);
  const goodAgain = useMutation({
    mutationFn: (address: string) => addressIsGood(book, address),
    onSuccess: () => client.invalidateQueries({ queryKey: ["history", book, customer] }),
  });
  return history.data?.returnedAddresses.map((a) => (
    <Alert
      className="below-10"
      key={a.address}
      type="warning"
      title={
        a.isRefused
          ? `The mail server refused ${a.address} on ${dayOf(a.since)}: ${a.reason}`
          : `Mail to ${a.address} came back on ${dayOf(a.since)}: ${a.reason}`
      }
      action={
        <Button size="small" loading={goodAgain.isPending} onClick={() => goodAgain.mutate(a.address)}>
          Mark as valid
        </Button>
      }
    />
  ));
}
