using System.Globalization;
using System.Net;

namespace Rendal.Core.Layouts;

/// <summary>
/// A code in a message that is scanned to pay: by a transfer, or on a page. In the body it is a place alone; it is drawn where the body is
/// used.
/// </summary>
/// <param name="Transfer">The transfer that it asks for; null where it leads to a page.</param>
/// <param name="Link">The page that it leads to; empty where it asks for a transfer.</param>
public sealed record PaymentCode(SepaTransfer? Transfer, string Link)
{
    /// <summary>The attribute of a picture’s element that says what the code is of, as <see cref="Setting"/> writes it.</summary>
    public const string Attribute = "data-code";

    // Large enough that a camera reads the 77 squares of the largest transfer off a screen.
    private const int Side = 168;

    private const string TransferMark = "transfer";

    /// <summary>What it is of, a line for each value: <c>transfer</c>, name, account, bank, amount and remittance; or the link.</summary>
    public string Setting =>
        Transfer is { } t
            ? string.Join('\n', TransferMark, t.NameInCode, Account(t), Bank(t), Invariant(t.Amount), t.RemittanceInCode)
            : Link;

    /// <summary>The same for whoever cannot scan it: <c>Tarnbrook Linen Hire, DE89 3704 …, COBADEFFXXX, EUR 1234.50, KR04</c>.</summary>
    public string Says =>
        Transfer is { } t
            ? string.Join(
                ", ",
                new[] { t.NameInCode, Account(t), Bank(t), $"EUR {Invariant(t.Amount)}", t.RemittanceInCode }.Where(v => v.Length > 0)
            )
            : Link;

    /// <summary>The code of a setting; null where it is none.</summary>
    public static PaymentCode? Read(string setting) =>
        setting.Split('\n') switch
        {
            [TransferMark, var name, var iban, var bic, var amount, var remittance]
                when decimal.TryParse(amount, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var asked) => new(
                new SepaTransfer(name, iban, bic, asked, remittance),
                ""
            ),
            [{ Length: > 0 } link] => new(null, link),
            _ => null,
        };

    /// <summary>The codes of a document, each with what it is for: one for each transfer, then that of the page to pay on.</summary>
    public static IReadOnlyList<(PaymentCode Code, string Caption)> Of(StatementDocument document) =>
        [
            .. document
                .Sections.Select(s => s.Transfer)
                .OfType<SepaTransfer>()
                .Select(t => (new PaymentCode(t, ""), document.PayWords.ByTransfer)),
            .. document.PayLink is { } link
                ? [(new PaymentCode(null, link), document.PayWords.ByLink)]
                : Array.Empty<(PaymentCode, string)>(),
        ];

    /// <summary>The same as HTML with all styles inline; empty where it has none.</summary>
    public static string Html(StatementDocument document) => string.Concat(Of(document).Select(c => Place(c.Code, c.Caption)));

    private static string Place(PaymentCode code, string caption) =>
        $"<div style=\"display:inline-block;margin:4px 16px 4px 0;font-size:12px;text-align:center\"><img "
        + $"{Attribute}=\"{WebUtility.HtmlEncode(code.Setting)}\" alt=\"{WebUtility.HtmlEncode(code.Says)}\" width=\"{Side}\" "
        + $"height=\"{Side}\" style=\"display:block\">{WebUtility.HtmlEncode(caption)}</div>";

    private static string Account(SepaTransfer transfer) =>
        string.Join(' ', transfer.Iban.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    private static string Bank(SepaTransfer transfer) => SepaTransfer.IsBic(transfer.Bic) ? transfer.Bic : "";

    private static string Invariant(decimal amount) => amount.ToString("0.00", CultureInfo.InvariantCulture);
}
