using System.Globalization;
using System.Net;

namespace Rendal.Core.Layouts;

/// <summary>A button in a message that leads to the page to pay on.</summary>
public static class PaymentButton
{
    private const string Dark = "#1d1420";
    private const string Light = "#ffffff";

    /// <summary>
    /// HTML with all styles inline: a link on a coloured cell of a table, as programs want it that know no buttons. It is 44 px high, so
    /// that a finger finds it.
    /// </summary>
    /// <param name="link">The address.</param>
    /// <param name="words">What stands on it.</param>
    /// <param name="ground">Its colour, as <c>#5b2a55</c>; the words are dark or light, whatever reads better on it.</param>
    public static string Html(string link, string words, string ground)
    {
        var colour = $"background-color:{ground}";
        return $"<table role=\"presentation\" cellpadding=\"0\" cellspacing=\"0\" border=\"0\" style=\"margin:12px 0\"><tr><td "
            + $"bgcolor=\"{ground}\" style=\"{colour};border-radius:4px\"><a href=\"{WebUtility.HtmlEncode(link)}\" "
            + $"style=\"display:inline-block;padding:12px 20px;line-height:20px;font-weight:600;text-decoration:none;{colour};"
            + $"color:{InkOn(ground)};border-radius:4px\">{WebUtility.HtmlEncode(words)}</a></td></tr></table>";
    }

    /// <summary>The ink that reads better on a ground, by the contrast of WCAG 2.2: dark from a luminance of 0.179 on.</summary>
    private static string InkOn(string ground)
    {
        var luminance = (0.2126 * Linear(1)) + (0.7152 * Linear(3)) + (0.0722 * Linear(5));
        return luminance > 0.179 ? Dark : Light;

        double Linear(int at)
        {
            var share = int.Parse(ground.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0;
            return share <= 0.04045 ? share / 12.92 : Math.Pow((share + 0.055) / 1.055, 2.4);
        }
    }
}
