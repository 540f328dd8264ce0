namespace Rendal.Core.Intake;

/// <summary>
/// Findings as they come up, most serious first when listed. Of each code the first <see cref="KeptPerCode"/> are
/// kept and all are counted, so that a file with a million bad rows stays bounded.
/// </summary>
public sealed class FindingList
{
    /// <summary>How many findings of one code are kept with their place; the rest are counted.</summary>
    public const int KeptPerCode = 1_000;

    private readonly Dictionary<string, (Severity Severity, int Count, List<Finding> Kept)> byCode = [];
    private readonly int[] bySeverity = new int[3];

    /// <summary>How many there are of one code, those beyond the kept ones included.</summary>
    public int CountOf(string code) => byCode.TryGetValue(code, out var of) ? of.Count : 0;

    /// <summary>How many there are of one severity, those beyond the kept ones included.</summary>
    public int CountOf(Severity severity) => bySeverity[(int)severity];

    /// <summary>Adds a finding. The first 1,000 of a code are kept; those beyond are counted only.</summary>
    public void Add(Finding finding)
    {
        if (!byCode.TryGetValue(finding.Code, out var of))
        {
            of = (finding.Severity, 0, []);
        }

        if (of.Kept.Count < KeptPerCode)
        {
            of.Kept.Add(finding);
        }

        bySeverity[(int)finding.Severity]++;
        byCode[finding.Code] = of with { Count = of.Count + 1 };
    }

    /// <summary>The kept findings: errors before warnings before notes, then by code, then by file and row.</summary>
    public IReadOnlyList<Finding> Listed() =>
        [
            .. byCode
                .Values.SelectMany(of => of.Kept)
                .OrderByDescending(f => f.Severity)
                .ThenBy(f => f.Code, StringComparer.Ordinal)
                .ThenBy(f => f.Source.File, StringComparer.Ordinal)
                .ThenBy(f => f.Source.Row),
        ];
}
