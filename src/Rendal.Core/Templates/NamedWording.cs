using Rendal.Core.Statements;

namespace Rendal.Core.Templates;

/// <summary>The wordings that the rows of a customer name in a column of the ledger.</summary>
/// <param name="Column">The heading of the column.</param>
/// <param name="Names">What stands in it, each once whether in capitals or not, trimmed; none where nothing does.</param>
public sealed record NamedWording(string Column, IReadOnlyList<string> Names)
{
    /// <summary>Where rows name none.</summary>
    public static NamedWording None { get; } = new("", []);

    /// <summary>
    /// Those that the rows of the items on some statements name; in a statement brought forward, those of its movements.
    /// </summary>
    /// <param name="statements">The statements.</param>
    /// <param name="column">The heading; empty for no column.</param>
    public static NamedWording Of(IReadOnlyList<Statement> statements, string column) =>
        column.Length == 0 ? None : new NamedWording(column, StatementRows.ValuesIn(statements, column));
}
