using System.Text;

namespace Rendal.Core.Customers;

/// <summary>Names compared as people compare them.</summary>
public static class FoldedName
{
    /// <summary>
    /// The name by NFKC, in small letters, with punctuation and white space left out: <c>"Abbot’s Table"</c> and <c>"ABBOTS TABLE"</c> are
    /// the same. Accents count: <c>"Hotel Łabędź"</c> and <c>"Hotel Labedz"</c> differ, and whether they are one customer is for a person
    /// to say.
    /// </summary>
    public static string Of(string name)
    {
        var folded = new StringBuilder(name.Length);
        foreach (var c in name.Normalize(NormalizationForm.FormKC))
        {
            if (!char.IsWhiteSpace(c) && !char.IsPunctuation(c) && !char.IsControl(c))
            {
                folded.Append(char.ToLowerInvariant(c));
            }
        }

        return folded.ToString();
    }
}
