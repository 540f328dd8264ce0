using Rendal.Store.Intake;

namespace Rendal.Web.Intake;

/// <summary>An intake in a list.</summary>
internal sealed record IntakeLine(
    long Id,
    IntakeKind Kind,
    string File,
    string? Sheet,
    string State,
    DateTimeOffset MadeAt,
    DateTimeOffset? KeptAt,
    int RowsRead,
    int RowsKept,
    bool CanUndo,
    bool IsLedger
);
