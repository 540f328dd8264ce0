using Rendal.Core.Intake;

namespace Rendal.Web.Intake;

/// <summary>A finding with its place.</summary>
internal sealed record FindingView(
    string Code,
    Severity Severity,
    string File,
    string? Sheet,
    int Row,
    string? Column,
    string? Customer,
    string Message,
    string Remedy,
    string? Other
)
{
    /// <summary>A finding.</summary>
    public static FindingView Of(Finding f) =>
        new(
            f.Code,
            f.Severity,
            f.Source.File,
            f.Source.Sheet,
            f.Source.Row,
            f.Column is { } column ? ShownText.Of(column) : null,
            f.Customer is { } customer ? ShownText.Of(customer) : null,
            ShownText.Of(f.Message),
            f.Remedy,
            f.Other is { } other ? ShownText.Of(other) : null
        );
}
