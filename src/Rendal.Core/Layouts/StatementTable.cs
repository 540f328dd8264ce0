using System.Net;
using System.Text;

namespace Rendal.Core.Layouts;

/// <summary>The items as a table for the body of a message.</summary>
public static class StatementTable
{
    private const string Cell = "padding:4px 8px 4px 0;border-bottom:1px solid #e3dcd1;white-space:nowrap;text-align:";
    private const string Head = "padding:4px 8px 4px 0;border-bottom:1px solid #2b2230;font-weight:600;vertical-align:bottom;text-align:";

    /// <summary>HTML with all styles inline, as mail programs want it; every value is escaped.</summary>
    public static string Html(StatementPaper paper)
    {
        var html = new StringBuilder();
        foreach (var section in paper.Sections)
        {
            html.Append("<div style=\"overflow-x:auto\"><table role=\"table\" style=\"border-collapse:collapse;width:100%;font-size:12.5px;font-variant-numeric:tabular-nums;margin:12px 0 6px\"><thead><tr>");
            foreach (var column in paper.Columns)
            {
                html.Append("<th scope=\"col\" style=\"").Append(Head).Append(Align(column)).Append("\">").Append(Escape(column.Heading)).Append("</th>");
            }

            html.Append("</tr></thead><tbody>");
            foreach (var part in section.Parts)
            {
                Part(html, paper, part);
            }

            html.Append("<tr><td colspan=\"").Append(paper.Columns.Count - 1).Append("\" style=\"padding:6px 8px 6px 0;font-weight:600\">").Append(Escape(section.TotalLabel))
                .Append("</td><td style=\"padding:6px 8px 6px 0;font-weight:600;text-align:right;white-space:nowrap\">").Append(Escape(section.Total)).Append("</td></tr>");
            foreach (var (i, line) in section.Interest.Index())
            {
                var weight = i == section.Interest.Count - 1 ? ";font-weight:600" : "";
                html.Append("<tr><td colspan=\"").Append(paper.Columns.Count - 1).Append("\" style=\"padding:3px 8px 3px 0").Append(weight).Append("\">").Append(Escape(line.Label))
                    .Append("</td><td style=\"padding:3px 8px 3px 0;text-align:right;white-space:nowrap").Append(weight).Append("\">").Append(Escape(line.Figure)).Append("</td></tr>");
            }

            html.Append("</tbody></table></div>");
            Strip(html, section);
        }

        return html.ToString();
    }

    private static void Part(StringBuilder html, StatementPaper paper, PaperPart part)
    {
        if (part.Heading.Length > 0)
        {
            html.Append("<tr><th scope=\"rowgroup\" colspan=\"").Append(paper.Columns.Count).Append("\" style=\"padding:12px 8px 4px 0;font-weight:600;text-align:left;border-bottom:1px solid #e3dcd1\">").Append(Escape(part.Heading)).Append("</th></tr>");
        }

        foreach (var row in part.Rows)
        {
            html.Append("<tr>");
            for (var i = 0; i < row.Count; i++)
            {
                html.Append("<td style=\"").Append(Cell).Append(Align(paper.Columns[i])).Append("\">").Append(Escape(row[i])).Append("</td>");
            }

            html.Append("</tr>");
        }

        if (part.TotalLabel.Length > 0)
        {
            html.Append("<tr><td colspan=\"").Append(paper.Columns.Count - 1).Append("\" style=\"padding:4px 8px 4px 0\">").Append(Escape(part.TotalLabel))
                .Append("</td><td style=\"padding:4px 8px 4px 0;text-align:right;white-space:nowrap;border-bottom:1px solid #2b2230\">").Append(Escape(part.Total)).Append("</td></tr>");
        }
    }

    private static void Strip(StringBuilder html, PaperSection section)
    {
        if (section.Ages.Count == 0)
        {
            return;
        }

        html.Append("<div style=\"overflow-x:auto\"><table role=\"table\" style=\"border-collapse:collapse;width:100%;font-size:12.5px;font-variant-numeric:tabular-nums;margin:0 0 12px\"><tr>");
        foreach (var age in section.Ages)
        {
            var (ground, ink) = AgeTone.Of(age.Band);
            html.Append("<td style=\"padding:5px 8px;border:1px solid #e3dcd1;background:").Append(ground).Append(";color:").Append(ink).Append("\"><span style=\"font-size:12px\">")
                .Append(Escape(age.Label)).Append("</span><br><strong>").Append(Escape(age.Figure)).Append("</strong></td>");
        }

        html.Append("</tr></table></div>");
    }

    private static string Align(PaperColumn column) => column.IsFigure ? "right" : "left";

    private static string Escape(string text) => WebUtility.HtmlEncode(text);
}
