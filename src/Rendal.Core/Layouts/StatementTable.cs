using System.Net;
using System.Text;

namespace Rendal.Core.Layouts;

/// <summary>The items as a table for the body of a message.</summary>
public static class StatementTable
{
    // Borders in a tone that is seen on light and on dark ground; the ink is the mail program's own.
    private const string Cell = "padding:4px 4px 4px 0;border-bottom:1px solid #b9aea4;vertical-align:top;text-align:";
    private const string Head = "padding:4px 4px 4px 0;border-bottom:1px solid #8a7f8c;font-weight:600;vertical-align:bottom;text-align:";

    /// <summary>HTML with all styles inline, as mail programs want it; every value is escaped.</summary>
    /// <param name="document">What stands in it.</param>
    /// <param name="withAges">Whether the strip of ages stands under each table, where the layout has it.</param>
    /// <param name="traced">Whether each value has beside it where it was taken from, for a page that is looked at.</param>
    public static string Html(StatementDocument document, bool withAges = true, bool traced = false)
    {
        string From(Origin? origin) => traced && origin is not null ? $" {Origin.Attribute}=\"{Escape(origin.ToString())}\"" : "";

        var html = new StringBuilder();
        foreach (var section in document.Sections)
        {
            html.Append(
                "<div style=\"overflow-x:auto\"><table role=\"table\" class=\"items\" "
                    + "style=\"border-collapse:collapse;width:100%;font-size:12px;font-variant-numeric:tabular-nums;margin:12px 0 "
                    + "6px\"><thead><tr>"
            );
            foreach (var column in document.Columns)
            {
                html.Append("<th scope=\"col\" style=\"")
                    .Append(Head)
                    .Append(column.IsFigure ? "right" : "left")
                    .Append("\">")
                    .Append(Escape(column.Heading))
                    .Append("</th>");
            }

            html.Append("</tr></thead><tbody>");
            foreach (var part in section.Parts)
            {
                Part(html, document, part, From);
            }

            html.Append("<tr><td colspan=\"")
                .Append(document.Columns.Count - SumSpan(document))
                .Append("\" style=\"padding:6px 4px 6px 0;font-weight:600\">")
                .Append(Escape(section.TotalLabel))
                .Append("</td><td colspan=\"")
                .Append(SumSpan(document))
                .Append("\" style=\"padding:6px 4px 6px 0;font-weight:600;text-align:right;white-space:nowrap\"")
                .Append(From(Origin.OfTotal))
                .Append('>')
                .Append(Escape(section.Total))
                .Append("</td></tr>");
            foreach (var (i, line) in section.Interest.Index())
            {
                var weight = i == section.Interest.Count - 1 ? ";font-weight:600" : "";
                html.Append("<tr><td colspan=\"")
                    .Append(document.Columns.Count - SumSpan(document))
                    .Append("\" style=\"padding:3px 4px 3px 0")
                    .Append(weight)
                    .Append("\">")
                    .Append(Escape(line.Label))
                    .Append("</td><td colspan=\"")
                    .Append(SumSpan(document))
                    .Append("\" style=\"padding:3px 4px 3px 0;text-align:right;white-space:nowrap")
                    .Append(weight)
                    .Append("\">")
                    .Append(Escape(line.Figure))
                    .Append("</td></tr>");
            }

            html.Append("</tbody></table></div>");
            Strip(html, withAges ? section.Ages : []);
        }

        return html.ToString();
    }

    /// <summary>The strips of ages alone, under the code of each currency where there are several.</summary>
    public static string Ages(StatementDocument document)
    {
        var html = new StringBuilder();
        foreach (var section in document.Sections)
        {
            if (document.Sections.Count > 1)
            {
                html.Append("<p style=\"margin:12px 0 4px\">").Append(Escape(section.Currency)).Append("</p>");
            }

            Strip(html, section.AllAges);
        }

        return html.ToString();
    }

    private static void Part(StringBuilder html, StatementDocument document, DocumentPart part, Func<Origin?, string> from)
    {
        if (part.Heading.Length > 0)
        {
            html.Append("<tr><th scope=\"rowgroup\" colspan=\"")
                .Append(document.Columns.Count)
                .Append("\" style=\"padding:12px 4px 4px 0;font-weight:600;text-align:left;border-bottom:1px solid #b9aea4\">")
                .Append(Escape(part.Heading))
                .Append("</th></tr>");
        }

        foreach (var (r, row) in part.Rows.Index())
        {
            html.Append("<tr>");
            for (var i = 0; i < row.Count; i++)
            {
                html.Append("<td style=\"")
                    .Append(Cell)
                    .Append(document.Columns[i].IsFigure ? "right;white-space:nowrap" : "left")
                    .Append('"')
                    .Append(from(document.OriginOf(part, r, i)))
                    .Append('>')
                    .Append(document.Columns[i].IsFigure ? Escape(row[i]) : Breakable(Escape(row[i])))
                    .Append("</td>");
            }

            html.Append("</tr>");
        }

        if (part.TotalLabel.Length > 0)
        {
            html.Append("<tr><td colspan=\"")
                .Append(document.Columns.Count - SumSpan(document))
                .Append("\" style=\"padding:4px 4px 4px 0\">")
                .Append(Escape(part.TotalLabel))
                .Append("</td><td colspan=\"")
                .Append(SumSpan(document))
                .Append("\" style=\"padding:4px 4px 4px 0;text-align:right;white-space:nowrap;border-bottom:1px solid #8a7f8c\">")
                .Append(Escape(part.Total))
                .Append("</td></tr>");
        }
    }

    private static void Strip(StringBuilder html, IReadOnlyList<AgeBand> ages)
    {
        if (ages.Count == 0)
        {
            return;
        }

        // Fields beside each other as far as there is room, then under each other.
        html.Append(
            "<table role=\"table\" style=\"border-collapse:collapse;font-size:12px;font-variant-numeric:tabular-nums;margin:0 "
                + "0 12px\"><tr>"
        );
        foreach (var age in ages)
        {
            // Credits have no age; a white field would glare on a dark ground.
            var (ground, ink) = AgeTone.Of(age.Band);
            html.Append("<td style=\"display:inline-block;min-width:78px;padding:5px 8px;margin:0 2px 2px 0;")
                .Append(age.Band is null ? "border:1px solid #b9aea4" : $"background:{ground};color:{ink}")
                .Append("\"><span style=\"font-size:12px\">")
                .Append(Escape(age.Label))
                .Append("</span><br><strong>")
                .Append(Escape(age.Figure))
                .Append("</strong></td>");
        }

        html.Append("</tr></table>");
    }

    /// <summary>
    /// Over how many columns a sum stands: it has a currency sign, and would make the last column wider than its figures.
    /// </summary>
    private static int SumSpan(StatementDocument document) => document.Columns.Count > 2 ? 2 : 1;

    /// <summary>On a telephone a date breaks before its year, 31.10.|2026, so that the last column stays in view.</summary>
    private static string Breakable(string escaped) =>
        escaped.LastIndexOf('.') is var dot and > 0 && dot < escaped.Length - 1
            ? $"{escaped[..(dot + 1)]}<wbr>{escaped[(dot + 1)..]}"
            : escaped;

    private static string Escape(string text) => WebUtility.HtmlEncode(text);
}
