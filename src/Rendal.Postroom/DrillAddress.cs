using System.Text.RegularExpressions;

namespace Rendal.Postroom;

/// <summary>
/// Addresses that ask for a drill by themselves, at whatever domain: <c>drill.recipient.550@inn.example</c>, <c>drill.data.452@…</c>,
/// <c>drill.end.cut@…</c>, <c>drill.end.keep-and-cut@…</c>, <c>drill.end.drip@…</c>. With <c>.once</c> at its end,
/// <c>drill.end.451.once@…</c>, the first message to the address alone meets it. A message to <c>drill.report@…</c> is taken, and a
/// delivery report comes back.
/// </summary>
internal static partial class DrillAddress
{
    /// <summary>Whether a delivery report is to come back for a recipient.</summary>
    public static bool WantsReport(string address) => address.StartsWith("drill.report@", StringComparison.OrdinalIgnoreCase);

    /// <summary>The drill that an address asks for; null where it asks for none.</summary>
    public static Drill? Read(string address)
    {
        var match = Pattern().Match(address);
        if (!match.Success)
        {
            return null;
        }

        var step = match.Groups[1].Value.ToUpperInvariant() switch
        {
            "RECIPIENT" => DrillStep.Recipient,
            "DATA" => DrillStep.Data,
            _ => DrillStep.End,
        };
        var what = match.Groups[2].Value.ToUpperInvariant();
        var drill = new Drill(
            step,
            what switch
            {
                "CUT" => DrillAct.Cut,
                "KEEP-AND-CUT" => DrillAct.KeepAndCut,
                "DRIP" => DrillAct.Drip,
                _ => DrillAct.Answer,
            },
            char.IsAsciiDigit(what[0]) ? $"{what} the address asked for this answer" : "",
            address,
            match.Groups[3].Success ? 1 : null
        );
        return drill.Problem is null ? drill : null;
    }

    [GeneratedRegex(
        @"^drill\.(recipient|data|end)\.([45][0-9]{2}|cut|keep-and-cut|drip)(\.once)?@",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Pattern();
}
