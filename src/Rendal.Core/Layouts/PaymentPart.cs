namespace Rendal.Core.Layouts;

/// <summary>
/// How to pay: the firm's lines; for euro a QR code that banking apps fill a transfer from; a link to a page to pay on, as words and as a
/// QR code; and what to quote as a bar code.
/// </summary>
public sealed record PaymentPart : LayoutPart
{
    /// <summary>The IBAN that the QR code pays to; empty for no code.</summary>
    public string Iban { get; init; } = "";

    /// <summary>The bank's BIC; may be empty within the European Economic Area.</summary>
    public string Bic { get; init; } = "";

    /// <summary>
    /// The address of a page to pay on, as text with slots, written as the subject of a <see cref="Wordings.Wording"/> is; it begins with
    /// <c>https://</c> and the host. Values are escaped as RFC 3986 asks. Empty for no link.
    /// </summary>
    public string Link { get; init; } = "";

    /// <summary>The kind of bar code.</summary>
    public BarCodeKind BarCode { get; init; }

    /// <summary>
    /// What the bar code says, as text with slots, written as the subject of a <see cref="Wordings.Wording"/> is; empty for the customer's
    /// code.
    /// </summary>
    public string BarCodeText { get; init; } = "";
}
