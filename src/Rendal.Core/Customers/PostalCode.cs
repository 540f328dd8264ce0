using System.Text.RegularExpressions;

namespace Rendal.Core.Customers;

/// <summary>Finds the postcode among the lines of an address, to put letters in the order in which the post wants them.</summary>
public static partial class PostalCode
{
    /// <summary>
    /// The postcode, in capitals and without spaces: <c>KB24RT</c> of <c>Kelby KB2 4RT</c>, <c>24937</c> of <c>24937 Flensburg</c>,
    /// <c>1012AB</c> of <c>1012 AB Amsterdam</c>. Empty where none is found. The last line that has one counts, as house numbers stand
    /// above it.
    /// </summary>
    /// <param name="lines">The lines, without the name and the country.</param>
    public static string Of(IReadOnlyList<string> lines)
    {
        foreach (var line in lines.Reverse())
        {
            var upper = line.ToUpperInvariant();
            if (British().Match(upper) is { Success: true } british)
            {
                return british.Groups[1].Value + british.Groups[2].Value;
            }

            if (Dutch().Match(upper) is { Success: true } dutch)
            {
                return dutch.Groups[1].Value + dutch.Groups[2].Value;
            }

            if (Digits().Match(upper) is { Success: true } digits)
            {
                return digits.Value.Replace("-", "", StringComparison.Ordinal);
            }
        }

        return "";
    }

    [GeneratedRegex(@"\b([A-Z]{1,2}[0-9][A-Z0-9]?) ?([0-9][A-Z]{2})\b")]
    private static partial Regex British();

    [GeneratedRegex(@"\b([0-9]{4}) ?([A-Z]{2})\b")]
    private static partial Regex Dutch();

    [GeneratedRegex(@"\b(?:[0-9]{5}|[0-9]{4}(?:-[0-9]{3})?|[0-9]{2}-[0-9]{3})\b")]
    private static partial Regex Digits();
}
