import { Link } from "react-router";
import type { Schemas } from "../../shared/api/client";
import { day, figure } from "../../shared/figure";

/** Where each figure of a statement comes from, down to the row of the file. */
export function SourceTable({ items, intake }: { items: Schemas["ItemSource"][]; intake: string }) {
  return (
    <table className="ledger">
      <thead>
        <tr>
          <th scope="col">Number</th>
          <th scope="col">Dated</th>
          <th scope="col">Due</th>
          <th scope="col" className="figure">
            Amount
          </th>
          <th scope="col" className="figure">
            Open
          </th>
          <th scope="col">Read from</th>
        </tr>
      </thead>
      <tbody>
        {items.map((item) => (
          <tr key={`${item.file} ${item.row}`}>
            <td title={item.kind}>{item.number || item.kind}</td>
            <td>{item.date && day(item.date)}</td>
            <td>{day(item.due)}</td>
            <td className="figure">{figure(item.original)}</td>
            <td className="figure">
              {figure(item.open)} {item.currency}
            </td>
            <td>
              <Link to={`${intake}?row=${item.row}`} title={item.file}>
                row {item.row}
              </Link>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
