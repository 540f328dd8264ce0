using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>A customer as the rows of a ledger file tell of it.</summary>
public sealed class CustomerSeen
{
    private readonly RowChains chains;
    private readonly List<string> addresses = [];
    private readonly List<CustomerBalance> balances = [];
    private int lastRow;

    /// <summary>A customer that no row was counted for yet.</summary>
    internal CustomerSeen(string key, string name, SourceRef first, string? emailColumn, RowChains chains) =>
        (Key, Name, First, EmailColumn, this.chains) = (key, name, first, emailColumn, chains);

    /// <summary>The customer's code, or name where the file has no codes.</summary>
    public string Key { get; }

    /// <summary>The first name that stands beside it; empty where none does.</summary>
    public string Name { get; internal set; }

    /// <summary>The first row of the file that is the customer’s, whether or not it became a ledger row.</summary>
    public SourceRef First { get; }

    /// <summary>The heading of the column with addresses; null where the file has none.</summary>
    public string? EmailColumn { get; }

    /// <summary>The good addresses of all its rows, in the order met.</summary>
    public IReadOnlyList<string> Addresses => addresses;

    /// <summary>How many of its rows became ledger rows.</summary>
    public int RowCount { get; private set; }

    /// <summary>The field of addresses of its last row that had one; most rows of a customer say the same.</summary>
    internal string LastField { get; set; } = "";

    /// <summary>The fields of addresses of its rows; made only for a customer that has several, as few do.</summary>
    internal HashSet<string>? Fields { get; set; }

    /// <summary>The names of its rows that differ from <see cref="Name"/>, folded.</summary>
    internal HashSet<string>? Names { get; set; }

    /// <summary>The numbers of its rows that became ledger rows, in the order of the file.</summary>
    public int[] Rows() => chains.Of(lastRow, RowCount);

    /// <summary>What its rows that became ledger rows come to, one for each currency, in the order met.</summary>
    public IReadOnlyList<CustomerBalance> Balances => balances;

    /// <summary>Adds a good address that it does not have yet.</summary>
    internal void Add(string address) => addresses.Add(address);

    /// <summary>Counts a row that became a ledger row.</summary>
    /// <param name="row">Its number in the file.</param>
    /// <param name="currency">Its currency.</param>
    /// <param name="open">What is outstanding of it, in that currency.</param>
    internal void Add(int row, Currency currency, decimal open)
    {
        var at = balances.FindIndex(b => b.Currency == currency);
        if (at < 0)
        {
            balances.Add(new CustomerBalance(currency, open, 1));
        }
        else
        {
            balances[at] = new CustomerBalance(currency, balances[at].Balance + open, balances[at].Items + 1);
        }

        lastRow = chains.Add(row, lastRow);
        RowCount++;
    }
}
