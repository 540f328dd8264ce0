using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Rendal.Core.Budgets;

namespace Rendal.Html;

/// <summary>
/// Parses fragments of HTML that people wrote. How deeply elements are nested is looked at before the parser is: it, and whatever walks
/// its tree, goes down a level with each.
/// </summary>
public static class Markup
{
    // Elements without an end tag, and those that the next one of their kind ends (HTML Living Standard, 13.1.2): left open, they do not
    // nest.
    private static readonly HashSet<string> EndedByOthers = new(StringComparer.OrdinalIgnoreCase)
    {
        "area",
        "base",
        "br",
        "col",
        "embed",
        "hr",
        "img",
        "input",
        "link",
        "meta",
        "source",
        "track",
        "wbr",
        "p",
        "li",
        "dt",
        "dd",
        "tr",
        "td",
        "th",
        "thead",
        "tbody",
        "tfoot",
        "colgroup",
        "option",
        "optgroup",
        "rt",
        "rp",
        "body",
        "html",
        "head",
    };

    /// <summary>The document of a fragment.</summary>
    /// <exception cref="OverBudget">It is longer, has more elements or is nested more deeply than <see cref="Limits.Markup"/>
    /// says.</exception>
    public static IDocument Parse(string fragment, Budget budget)
    {
        Check(fragment, budget);
        return new HtmlParser().ParseDocument($"<body>{fragment}</body>");
    }

    /// <summary>Demands that a fragment is within a budget. It is not parsed for that.</summary>
    /// <exception cref="OverBudget">It is not.</exception>
    public static void Check(string fragment, Budget budget)
    {
        budget.Spend(Cost.Characters, fragment.Length);
        var open = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        var levels = 0;
        for (var i = fragment.IndexOf('<'); i >= 0; i = fragment.IndexOf('<', i + 1))
        {
            budget.Spend(Cost.Elements);
            var isEnd = i + 1 < fragment.Length && fragment[i + 1] == '/';
            var name = NameAt(fragment, isEnd ? i + 2 : i + 1);
            if (name.Length == 0 || EndedByOthers.Contains(name))
            {
                continue;
            }

            var count = open.GetValueOrDefault(name);
            if (!isEnd)
            {
                open[name] = count + 1;
                budget.AtMost(Cost.Levels, ++levels);
            }
            else if (count > 0)
            {
                open[name] = count - 1;
                levels--;
            }
        }
    }

    private static string NameAt(string fragment, int start)
    {
        var end = start;
        while (end < fragment.Length && end - start < 32 && (char.IsAsciiLetterOrDigit(fragment[end]) || fragment[end] is '-' or ':'))
        {
            end++;
        }

        return fragment[start..end];
    }
}
