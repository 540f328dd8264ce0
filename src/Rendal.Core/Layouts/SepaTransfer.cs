using System.Text;
using System.Text.RegularExpressions;

namespace Rendal.Core.Layouts;

/// <summary>
/// A SEPA credit transfer that a QR code asks for, after the European Payments Council's guideline EPC069-12 version 2.1.
/// </summary>
/// <param name="Name">Who is paid.</param>
/// <param name="Iban">The account.</param>
/// <param name="Bic">The bank; may be empty within the European Economic Area.</param>
/// <param name="Amount">In euro, within <see cref="Amounts"/>.</param>
/// <param name="Remittance">What the payer quotes.</param>
public sealed partial record SepaTransfer(string Name, string Iban, string Bic, decimal Amount, string Remittance)
{
    /// <summary>The least and the largest amount that a code can ask for: 0.01 and 999,999,999.99.</summary>
    public static readonly (decimal Least, decimal Most) Amounts = (0.01m, 999_999_999.99m);

    private const int LongestName = 70;
    private const int LongestRemittance = 140;

    /// <summary>The name as a code has it: on one line, at most 70 characters.</summary>
    public string NameInCode => Line(Name, LongestName);

    /// <summary>What the payer quotes as a code has it: on one line, at most 140 characters.</summary>
    public string RemittanceInCode => Line(Remittance, LongestRemittance);

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

    /// <summary>
    /// Whether a text is a BIC (ISO 9362), of 8 or 11 characters: <c>COBADEFFXXX</c> is one; small letters do not matter.
    /// </summary>
    public static bool IsBic(string text) => Bank().IsMatch(text);

    [GeneratedRegex("^[A-Za-z]{6}[A-Za-z0-9]{2}(?:[A-Za-z0-9]{3})?\\z", RegexOptions.CultureInvariant)]
    private static partial Regex Bank();

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
