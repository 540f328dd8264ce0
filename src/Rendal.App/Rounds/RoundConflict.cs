using System.Globalization;
using Rendal.App.Books;
using Rendal.Core.Rounds;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>Tells a person why their change to a round was not made.</summary>
public static class RoundConflict
{
    private static readonly Dictionary<string, string> Words = new(StringComparer.Ordinal)
    {
        [nameof(RoundSettings.Name)] = "its name",
        [nameof(RoundSettings.Wording)] = "its wording",
        [nameof(RoundSettings.Sender)] = "its sender",
        [nameof(RoundSettings.Layout)] = "its layout",
        [nameof(Choice.AsOf)] = "the day",
        [nameof(Choice.Form)] = "what the statement lists",
        [nameof(Choice.PeriodFrom)] = "the period",
        [nameof(Choice.InterestPercent)] = "the interest",
        [nameof(Choice.About)] = "what goes",
        [nameof(Choice.ReminderLevels)] = "the reminder levels",
        [nameof(Choice.LeastBalance)] = "the minimum balance",
        [nameof(Choice.OverdueDays)] = "“overdue by at least”",
        [nameof(Choice.NotWithinDays)] = "“not written to for”",
        [nameof(Choice.ColleagueColumn)] = "the copies to colleagues",
        [nameof(Choice.WordingColumn)] = "the column that names the wording",
        [nameof(Choice.WithCredits)] = "the credits",
        [nameof(Choice.LeaveOutHeld)] = "the items in dispute",
        [nameof(Choice.Units)] = "the units",
        [nameof(Choice.Columns)] = "the columns",
        [nameof(Choice.DatedFrom)] = "the dates",
        [nameof(Choice.DatedTo)] = "the dates",
        [nameof(Choice.DueFrom)] = "the due dates",
        [nameof(Choice.DueTo)] = "the due dates",
        [nameof(Choice.Groups)] = "who gets the statements of branches",
        [nameof(Choice.HeadOffices)] = "the head offices",
        [nameof(Choice.Customers)] = "the customers",
    };

    /// <summary>Nothing where a change was made.</summary>
    /// <exception cref="ProblemException">It was not: with who changed what, and when.</exception>
    public static async Task DemandAsync(RoundUpdate update, BookStores stores, CancellationToken cancel)
    {
        if (update.Result == RoundUpdateResult.TooLate)
        {
            throw ProblemException.Conflict("Parcels of this round were released; it stays as it is.");
        }

        if (update is { Result: RoundUpdateResult.Contested, Other: { } other })
        {
            throw ProblemException.Conflict(
                $"{Told(other, update.Settings, stores, await NamesAsync([other], stores, cancel))} since you saw it. Look at "
                    + "it; if yours is to stand, change it again."
            );
        }
    }

    /// <summary>
    /// What others did with a round since somebody saw it: “marta decided about Beacon Lodge at 12:04:10, joan changed the round at
    /// 12:05:00”; empty for nothing.
    /// </summary>
    public static async Task<string> SinceAsync(IReadOnlyList<RoundChange> changes, BookStores stores, CancellationToken cancel)
    {
        var names = await NamesAsync(changes, stores, cancel);
        return string.Join(", ", changes.Select(c => Told(c, [], stores, names)).Distinct());
    }

    private static Task<Dictionary<string, string>> NamesAsync(
        IEnumerable<RoundChange> changes,
        BookStores stores,
        CancellationToken cancel
    ) => stores.Customers.NamesAsync([.. changes.Where(c => c.About is "customer" or "parcel").Select(c => c.Subject)], cancel);

    private static string Told(RoundChange change, IReadOnlyList<string> settings, BookStores stores, Dictionary<string, string> names)
    {
        var what = settings.Select(s => Words.GetValueOrDefault(s, "the choice")).Distinct().DefaultIfEmpty("the round");
        var at = stores.Book.ByItsClock(change.At).ToString("HH:mm:ss", CultureInfo.InvariantCulture);
        return change.About switch
        {
            "customer" => $"{change.By} decided about {names.GetValueOrDefault(change.Subject, change.Subject)} at {at}",
            "parcel" => $"{change.By} changed the parcel of {names.GetValueOrDefault(change.Subject, change.Subject)} at {at}",
            "item" => $"{change.By} decided about this item at {at}",
            "release" => $"{change.By} released a part of this round at {at}",
            "ledger" => $"{change.By} put something right in the ledger at {at}",
            "stop" => $"{change.By} stopped this round at {at}",
            _ => $"{change.By} changed {string.Join(" and ", what)} at {at}",
        };
    }
}
