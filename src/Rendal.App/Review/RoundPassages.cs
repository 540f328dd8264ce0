using Rendal.App.Books;
using Rendal.App.Wordings;
using Rendal.Core.Wordings;

namespace Rendal.App.Review;

/// <summary>A wording of a round, and what its passages do in it.</summary>
/// <param name="Wording">Its number.</param>
/// <param name="Name">Its name.</param>
/// <param name="Parcels">How many parcels go with it.</param>
/// <param name="Says">What its passages are seldom meant to do, one sentence each.</param>
public sealed record RoundPassages(long Wording, string Name, int Parcels, IReadOnlyList<string> Says)
{
    // With fewer, it is chance that a value is met by none or by all.
    private const int FewestParcels = 5;

    /// <summary>
    /// The wordings of a round. A passage under a condition on a value that stands for nobody, or for everybody, is told: the value is
    /// probably written otherwise. One about what is owed is not: it comes and goes from month to month.
    /// </summary>
    public static async Task<IReadOnlyList<RoundPassages>> OfAsync(BookStores stores, long round, CancellationToken cancel)
    {
        var wordings = (await stores.Wordings.ListAsync(cancel)).ToDictionary(w => w.Id, w => w.Wording);
        return
        [
            .. (await stores.Remarks.PassagesAsync(round, cancel))
                .Where(p => wordings.ContainsKey(p.Wording))
                .Select(p => new RoundPassages(
                    p.Wording,
                    wordings[p.Wording].Name,
                    p.Parcels,
                    p.Parcels < FewestParcels
                        ? []
                        :
                        [
                            .. ReadyWordings
                                .Of(wordings[p.Wording])
                                .Passages.Take(WordingTemplate.MostPassages)
                                .Index()
                                .Where(passage => !Has(p.InSome, passage.Index) || Has(p.InAll, passage.Index))
                                .Select(passage => (Condition: passage.Item.When as SlotCondition, InAll: Has(p.InAll, passage.Index)))
                                .Where(passage => passage.Condition is not null)
                                .Select(passage => Told(passage.Condition!, passage.InAll)),
                        ]
                )),
        ];
    }

    private static bool Has(long bits, int index) => (bits & (1L << index)) != 0;

    private static string Told(SlotCondition condition, bool inAll) =>
        $"The words under a condition on “{condition.Slot.Label}”"
        + $"{(condition.With.Length > 0 ? $" and “{condition.With}”" : "")} stand in {(inAll ? "every message" : "no message")}.";
}
