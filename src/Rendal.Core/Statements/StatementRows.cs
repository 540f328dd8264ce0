namespace Rendal.Core.Statements;

/// <summary>The rows of the ledger that stand behind statements.</summary>
public static class StatementRows
{
    /// <summary>
    /// What stands in a column of the file, in the rows of the items of statements, in their order: trimmed, without what is empty, and
    /// each once, whether in capitals or not. Of an account brought forward it is the rows of its movements.
    /// </summary>
    /// <param name="statements">The statements.</param>
    /// <param name="column">The heading of the column.</param>
    public static IReadOnlyList<string> ValuesIn(IReadOnlyList<Statement> statements, string column) =>
        [
            .. statements
                .SelectMany(s => s.Accounts)
                .SelectMany(a => a.Forward is { } forward ? forward.Movements.Select(m => m.Row) : a.Items.Select(i => i.Row))
                .Select(row => row.Extra.TryGetValue(column, out var value) ? value.Trim() : "")
                .Where(value => value.Length > 0)
                .Distinct(StringComparer.OrdinalIgnoreCase),
        ];
}
