using Rendal.Core.Intake;

namespace Rendal.Store.Intake;

/// <summary>One taking-in of a file.</summary>
/// <param name="Id">Its number.</param>
/// <param name="FileId">The stored file.</param>
/// <param name="FileName">The file's name.</param>
/// <param name="State"><c>looked-at</c>, <c>kept</c> or <c>undone</c>.</param>
/// <param name="Change">What the person decided about its reading.</param>
/// <param name="MadeAt">When it was uploaded.</param>
/// <param name="KeptAt">When its rows became the ledger.</param>
/// <param name="RowsRead">Rows read when it was kept.</param>
/// <param name="RowsKept">Rows that became ledger rows.</param>
/// <param name="HasOutstanding">Whether its file gave what is outstanding; else full amounts that are still to be settled.</param>
/// <param name="Kind">What it is taken in for.</param>
/// <param name="Sheet">The sheet that was kept; null for a text file, and while nothing was kept.</param>
/// <param name="RowsLeftOut">Rows that a person left out.</param>
/// <param name="CarriesDown">Whether customers are carried down over the rows below them, as it was understood when it was looked at
/// last.</param>
public sealed record IntakeRecord(
    long Id,
    long FileId,
    string FileName,
    string State,
    ReadingChange Change,
    DateTimeOffset MadeAt,
    DateTimeOffset? KeptAt,
    int RowsRead,
    int RowsKept,
    bool HasOutstanding,
    IntakeKind Kind,
    string? Sheet,
    int RowsLeftOut,
    bool CarriesDown
);
