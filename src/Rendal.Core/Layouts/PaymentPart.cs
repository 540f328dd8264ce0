namespace Rendal.Core.Layouts;

/// <summary>How to pay: the firm's lines, and for euro a QR code that banking apps fill a transfer from.</summary>
public sealed record PaymentPart : LayoutPart
{
    /// <summary>The IBAN that the QR code pays to; empty for no code.</summary>
    public string Iban { get; init; } = "";

    /// <summary>The bank's BIC; may be empty within the European Economic Area.</summary>
    public string Bic { get; init; } = "";
}
