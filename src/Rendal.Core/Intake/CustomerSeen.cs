using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>A customer as the rows of a ledger file tell of it.</summary>
public sealed class CustomerSeen
{
    internal CustomerSeen(string key, string name, SourceRef first, string? emailColumn) =>
        (Key, Name, First, EmailColumn) = (key, name, first, emailColumn);

    /// <summary>The customer's code, or name where the file has no codes.</summary>
    public string Key { get; }

    /// <summary>The first name that stands beside it; empty where none does.</summary>
    public string Name { get; internal set; }

    /// <summary>The first row that is the customer's.</summary>
    public SourceRef First { get; }

    /// <summary>The heading of the column with addresses; null where the file has none.</summary>
    public string? EmailColumn { get; }

    /// <summary>The good addresses of all its rows, in the order met.</summary>
    public List<string> Addresses { get; } = [];

    /// <summary>The numbers of its rows that became ledger rows, in the order of the file.</summary>
    public List<int> Rows { get; } = [];

    /// <summary>The field of addresses of its last row that had one; most rows of a customer say the same.</summary>
    internal string LastField { get; set; } = "";

    /// <summary>The fields of addresses of its rows; made only for a customer that has several, as few do.</summary>
    internal HashSet<string>? Fields { get; set; }

    /// <summary>The names of its rows that differ from <see cref="Name"/>, folded.</summary>
    internal HashSet<string>? Names { get; set; }
}
