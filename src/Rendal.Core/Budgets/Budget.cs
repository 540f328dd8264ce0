namespace Rendal.Core.Budgets;

/// <summary>
/// What one piece of work may use up, and the count of what it has. Work on whatever a person brought asks it as it goes along, so that
/// nothing small can cost much. One budget serves one piece of work on one thread.
/// </summary>
public sealed class Budget
{
    private readonly string subject;
    private readonly Limits limits;
    private readonly Func<TimeSpan>? taken;
    private readonly CancellationToken cancel;
    private readonly long[] used = new long[Enum.GetValues<Cost>().Length];

    /// <summary>A budget that is not limited in time: the work is bounded by what it counts.</summary>
    /// <param name="subject">What is worked on, as the subject of a sentence: <c>ledger.xlsx</c>, <c>The body</c>.</param>
    /// <param name="limits">The most of each.</param>
    public Budget(string subject, Limits limits) => (this.subject, this.limits) = (subject, limits);

    /// <summary>A budget that is limited in time as well: <see cref="Continue"/> asks whether there is any left.</summary>
    /// <param name="subject">What is worked on, as the subject of a sentence.</param>
    /// <param name="limits">The most of each.</param>
    /// <param name="taken">Tells how long the work has taken.</param>
    /// <param name="cancel">Whoever asked for the work has gone.</param>
    public Budget(string subject, Limits limits, Func<TimeSpan> taken, CancellationToken cancel)
        : this(subject, limits) => (this.taken, this.cancel) = (taken, cancel);

    /// <summary>Counts so much of something as used up, for good unless it is given back.</summary>
    /// <exception cref="OverBudget">That is more than there may be.</exception>
    public void Spend(Cost cost, long amount = 1) => AtMost(cost, used[(int)cost] += amount);

    /// <summary>
    /// Takes so much of something off the count again, as the pages and characters of a document that is thrown away to be set anew.
    /// </summary>
    public void GiveBack(Cost cost, long amount) => used[(int)cost] -= amount;

    /// <summary>Demands that there is not more of something than there may be, without counting it.</summary>
    /// <exception cref="OverBudget">There is.</exception>
    public void AtMost(Cost cost, long amount)
    {
        if (amount > limits.Most(cost))
        {
            throw OverBudget.Of(subject, cost, limits.Most(cost), limits.Remedy);
        }
    }

    /// <summary>Demands that the work may go on; to be asked every few steps. A budget without a limit in time never refuses.</summary>
    /// <exception cref="OverBudget">It has taken too long.</exception>
    /// <exception cref="OperationCanceledException">Whoever asked for it has gone.</exception>
    public void Continue()
    {
        cancel.ThrowIfCancellationRequested();
        if (taken is not null && taken() > limits.Time)
        {
            throw OverBudget.Of(subject, limits.Time, limits.Remedy);
        }
    }
}
