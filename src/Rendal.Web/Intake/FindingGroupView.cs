using Rendal.Core.Intake;

namespace Rendal.Web.Intake;

/// <summary>The findings of one kind: how many there are, and the first of them.</summary>
internal sealed record FindingGroupView(string Code, Severity Severity, int Count, IReadOnlyList<FindingView> First)
{
    private const int Shown = 100;

    /// <summary>Findings by their codes, worst first, with how many there are of each beyond those that are kept.</summary>
    public static IReadOnlyList<FindingGroupView> Of(FindingList findings) =>
        [
            .. findings
                .Listed()
                .GroupBy(f => f.Code)
                .Select(g => new FindingGroupView(
                    g.Key,
                    g.First().Severity,
                    findings.CountOf(g.Key),
                    [.. g.Take(Shown).Select(FindingView.Of)]
                )),
        ];

    /// <summary>Findings by their codes, worst first.</summary>
    public static IReadOnlyList<FindingGroupView> Of(IEnumerable<Finding> findings) =>
        [
            .. findings
                .GroupBy(f => f.Code)
                .Select(g => new FindingGroupView(g.Key, g.First().Severity, g.Count(), [.. g.Take(Shown).Select(FindingView.Of)])),
        ];
}
