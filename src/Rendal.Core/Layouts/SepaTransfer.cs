using System.Globalization;
using System.Text;

namespace Rendal.Core.Layouts;

/// <summary>
/// A SEPA credit transfer as the text of a QR code, after the European Payments Council's guideline EPC069-12 version 2.1: version 002,
/// UTF-8, at most 331 bytes, error correction M.
/// </summary>
/// <param name="Name">Who is paid; cut to 70 characters.</param>
/// <param name="Iban">The account.</param>
/// <param name="Bic">The bank; may be empty within the European Economic Area.</param>
/// <param name="Amount">In euro, 0.01 to 999,999,999.99.</param>
/// <param name="Remittance">What the payer quotes; cut to 140 characters.</param>
public sealed record SepaTransfer(string Name, string Iban, string Bic, decimal Amount, string Remittance)
{
    /// <summary>The least and the largest amount that a code can ask for.</summary>
    public static readonly (decimal Least, decimal Most) Amounts = (0.01m, 999_999_999.99m);

    private const int LongestName = 70;
    private const int LongestRemittance = 140;

    /// <summary>The text of the code: twelve lines, those at the end left away where they are empty.</summary>
    /// <exception cref="ArgumentException">The amount or the IBAN is none that a transfer can have.</exception>
    public string Text()
    {
        if (Amount < Amounts.Least || Amount > Amounts.Most)
        {
            throw new ArgumentException(
                $"A transfer of {Amount.ToString(CultureInfo.InvariantCulture)} euro cannot be written into a code."
            );
        }

        string[] lines =
        [
            "BCD",
            "002",
            "1",
            "SCT",
            Compact(Bic),
            Line(Name, LongestName),
            IsIban(Iban) ? Compact(Iban) : throw new ArgumentException($"“{Iban}” is not an IBAN."),
            "EUR" + Amount.ToString("0.00", CultureInfo.InvariantCulture),
            "",
            "",
            Line(Remittance, LongestRemittance),
        ];
        return string.Join('\n', lines).TrimEnd('\n');
    }

    /// <summary>
    /// Whether a text is an IBAN by its length and check digits (ISO 13616, ISO 7064 MOD 97-10); spaces do not matter: <c>DE89 3704 0044
    /// 0532 0130 00</c> is one.
    /// </summary>
    public static bool IsIban(string text)
    {
        var iban = Compact(text);
        if (
            iban.Length is < 15 or > 34
            || !iban.All(char.IsAsciiLetterOrDigit)
            || !char.IsAsciiLetter(iban[0])
            || !char.IsAsciiLetter(iban[1])
            || !char.IsAsciiDigit(iban[2])
            || !char.IsAsciiDigit(iban[3])
        )
        {
            return false;
        }

        var rest = 0;
        foreach (var c in iban[4..] + iban[..4])
        {
            var value = char.IsAsciiDigit(c) ? c - '0' : c - 'A' + 10;
            rest = ((rest * (value > 9 ? 100 : 10)) + value) % 97;
        }

        return rest == 1;
    }

    private static string Compact(string text) => string.Concat(text.Where(c => !char.IsWhiteSpace(c))).ToUpperInvariant();

    private static string Line(string text, int most)
    {
        var line = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        var kept = new StringBuilder();
        foreach (var rune in line.EnumerateRunes().TakeWhile(_ => kept.Length < most))
        {
            kept.Append(kept.Length + rune.Utf16SequenceLength <= most ? rune.ToString() : "");
        }

        return kept.ToString();
    }
}
