namespace Rendal.Core.Budgets;

/// <summary>
/// Something that a person brought takes more work than is done for it. The message is for that person: what it is, what the most is, what
/// to do. Nothing was kept of the work.
/// </summary>
public sealed class OverBudget : Exception
{
    private OverBudget(string message)
        : base(message) { }

    /// <summary>More of something than is worked through: “ledger.xlsx has more than 5,000 columns, …”.</summary>
    internal static OverBudget Of(string subject, Cost cost, long most, string remedy) =>
        new(
            string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"{subject} has more than {most:#,0} {cost.ToString().ToLowerInvariant()}, which is the most that is worked "
                    + $"through. {remedy}"
            )
        );

    /// <summary>More time than is taken for it.</summary>
    internal static OverBudget Of(string subject, TimeSpan most, string remedy) =>
        new(
            string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"{subject} took longer than {most.TotalSeconds:0} seconds and was broken off. {remedy}"
            )
        );
}
