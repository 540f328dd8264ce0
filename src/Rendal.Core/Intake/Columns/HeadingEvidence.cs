using Rendal.Core.Money;

namespace Rendal.Core.Intake.Columns;

/// <summary>How much the headings of a file say for each meaning of a column. More than 3 is as good as said.</summary>
internal sealed class HeadingEvidence
{
    /// <summary>What a heading that stands whole in the lists counts for.</summary>
    public const double Phrase = 6;

    /// <summary>What a heading counts for of which a person said what it is; more than all that its words say.</summary>
    public const double Taught = 9;

    /// <summary>Why a column is what it is, where a person said so of its heading in another file.</summary>
    public const string AsTaught = "as you said in another file";

    // What says so much is as good as said.
    private const double Said = 3;

    private static readonly HeadingConcept[] Foreign =
    [
        HeadingConcept.Tax,
        HeadingConcept.Discount,
        HeadingConcept.Net,
        HeadingConcept.Paid,
        HeadingConcept.Limit,
        HeadingConcept.Quantity,
        HeadingConcept.Price,
        HeadingConcept.Phone,
        HeadingConcept.Street,
        HeadingConcept.Town,
        HeadingConcept.Postcode,
        HeadingConcept.Country,
        HeadingConcept.Place,
        HeadingConcept.Order,
        HeadingConcept.Time,
        HeadingConcept.User,
        HeadingConcept.Days,
        HeadingConcept.Rate,
        HeadingConcept.Terms,
        HeadingConcept.Text,
        HeadingConcept.Level,
        HeadingConcept.Article,
        HeadingConcept.Bank,
        HeadingConcept.Contact,
        HeadingConcept.Title,
        HeadingConcept.Salutation,
        HeadingConcept.Copy,
        HeadingConcept.Blind,
        HeadingConcept.Delivery,
        HeadingConcept.Language,
        HeadingConcept.Office,
        HeadingConcept.Minimum,
    ];

    private readonly List<Dictionary<HeadingConcept, double>> concepts;
    private readonly IReadOnlyList<string> headings;
    private readonly ColumnMeaning?[] taught;

    /// <summary>Reads the headings of a file together: the language that most of their words are of decides what the others are.</summary>
    /// <param name="headings">The headings.</param>
    /// <param name="taught">What people said of headings before.</param>
    public HeadingEvidence(IReadOnlyList<string> headings, TaughtHeadings taught)
    {
        this.headings = headings;
        this.taught = [.. headings.Select(taught.MeaningOf)];
        var senses = headings.Select(ConceptWords.BuiltIn.Of).ToList();
        var votes = senses
            .SelectMany(h => h)
            .SelectMany(w => w.GroupBy(s => s.Language).Select(g => (Language: g.Key, Weight: g.Max(s => s.Weight))))
            .GroupBy(v => v.Language)
            .ToDictionary(g => g.Key, g => g.Sum(v => v.Weight), StringComparer.Ordinal);
        var most = votes.Values.DefaultIfEmpty().Max();
        var languages = votes.Where(v => v.Value > most - 0.01).Select(v => v.Key).ToHashSet(StringComparer.Ordinal);
        concepts = senses.ConvertAll(h => Together(h, languages));
    }

    /// <summary>Whether a person said of a heading what it is, in another file.</summary>
    public bool IsTaught(int column) => taught[column] is not null;

    /// <summary>Whether a heading stands whole in the lists, or was said before.</summary>
    public bool IsPhrase(int column, ColumnMeaning meaning) =>
        taught[column] is { } said
            ? said == meaning
            : HeadingWords.Of(headings[column])?.Meaning == meaning
                || (meaning is ColumnMeaning.CustomerCode or ColumnMeaning.CustomerName && HeadingWords.IsCodeOrName(headings[column]));

    /// <summary>Whether a heading says balance and no more.</summary>
    public bool IsBareBalance(int column) => HeadingWords.Plain(headings[column]) is "balance" or "saldo" or "solde";

    /// <summary>Whether a heading speaks of something that no meaning is made of.</summary>
    public bool IsForeign(int column) =>
        taught[column] is { } said ? said == ColumnMeaning.Extra : Foreign.Any(concepts[column].ContainsKey);

    /// <summary>How much a heading speaks of something; 0 where it does not.</summary>
    public double Weight(int column, HeadingConcept concept) => concepts[column].GetValueOrDefault(concept);

    /// <summary>The currency that a heading names: “Open (EUR)”, “Amount USD”, “£”. Null where it names none or several.</summary>
    public Currency? CurrencyOf(int column) =>
        headings[column]
            .Split([' ', '(', ')', '[', ']', '/', '-', ','], StringSplitOptions.RemoveEmptyEntries)
            .Where(w => w.Length == 1 || (w.Length == 3 && w.All(char.IsAsciiLetterUpper)))
            .Select(w => Currency.TryParse(w, out var currency) ? currency : (Currency?)null)
            .OfType<Currency>()
            .ToList()
            is [var one]
            ? one
            : null;

    /// <summary>The meanings that are as good as said by a heading, each once.</summary>
    public IReadOnlySet<ColumnMeaning> Meanings()
    {
        var found = new HashSet<ColumnMeaning>();
        for (var i = 0; i < Math.Min(headings.Count, Recognition.ColumnsToldApart); i++)
        {
            var (meaning, score) = Enum.GetValues<ColumnMeaning>().Select(m => (m, Score: For(i, m))).MaxBy(m => m.Score);
            if (score >= Said)
            {
                found.Add(meaning);
            }
        }

        return found;
    }

    /// <summary>How much a heading says for a meaning; below 0 what it says against it.</summary>
    public double For(int column, ColumnMeaning meaning)
    {
        if (taught[column] is { } said)
        {
            return said == meaning ? Taught : -Taught;
        }

        if (HeadingWords.Of(headings[column]) is { } phrase)
        {
            return phrase.Meaning == meaning ? Phrase - Math.Min(phrase.Rank, 40) * 0.02 : Words(column, meaning) - 2;
        }

        // “Customer” stands over names, and over codes where there is another column of names.
        return (meaning, HeadingWords.IsCodeOrName(headings[column])) switch
        {
            (ColumnMeaning.CustomerName, true) => 4.5,
            (ColumnMeaning.CustomerCode, true) => 4.2,
            _ => Words(column, meaning),
        };
    }

    private double Words(int column, ColumnMeaning meaning)
    {
        var found = concepts[column];
        double W(HeadingConcept concept) => found.GetValueOrDefault(concept);
        var foreign = Foreign.Max(W);
        var isOpen = Math.Max(W(HeadingConcept.Open), Math.Min(W(HeadingConcept.Due), W(HeadingConcept.Amount)));
        var score = meaning switch
        {
            ColumnMeaning.CustomerCode => Math.Max(
                Both(W(HeadingConcept.Party), Math.Max(W(HeadingConcept.Code), W(HeadingConcept.Account)), 5),
                Math.Max(
                    Both(W(HeadingConcept.Account), W(HeadingConcept.Code), 4.5),
                    Math.Max(3.5 * W(HeadingConcept.Account), Math.Max(2 * W(HeadingConcept.Party), 1 * W(HeadingConcept.Code)))
                )
            )
                - (4 * W(HeadingConcept.Document))
                - (4 * W(HeadingConcept.Name)),
            ColumnMeaning.CustomerName => Math.Max(
                Both(Math.Max(W(HeadingConcept.Party), W(HeadingConcept.Account)), W(HeadingConcept.Name), 5),
                Math.Max(3.5 * W(HeadingConcept.Name), 2.5 * W(HeadingConcept.Party))
            )
                - (4 * W(HeadingConcept.Document))
                - (3 * W(HeadingConcept.Code)),
            ColumnMeaning.Number => Math.Max(
                Both(W(HeadingConcept.Document), W(HeadingConcept.Code), 5),
                Math.Max(
                    Both(W(HeadingConcept.Document), W(HeadingConcept.Reference), 4),
                    Math.Max(3.2 * W(HeadingConcept.Document), Math.Max(1.5 * W(HeadingConcept.Code), 1.5 * W(HeadingConcept.Reference)))
                )
            )
                - (4 * Math.Max(W(HeadingConcept.Party), W(HeadingConcept.Account)))
                - (
                    4
                    * Math.Max(
                        W(HeadingConcept.Date),
                        Math.Max(W(HeadingConcept.Due), Math.Max(W(HeadingConcept.Amount), W(HeadingConcept.Kind)))
                    )
                ),
            ColumnMeaning.Date => Math.Max(Both(W(HeadingConcept.Document), W(HeadingConcept.Date), 5), 4 * W(HeadingConcept.Date))
                - (5 * W(HeadingConcept.Due)),
            ColumnMeaning.DueDate => (Math.Max(Both(W(HeadingConcept.Due), W(HeadingConcept.Date), 5.5), 5 * W(HeadingConcept.Due)))
                - (4 * Math.Max(W(HeadingConcept.Amount), W(HeadingConcept.Open))),
            ColumnMeaning.Currency => (5 * W(HeadingConcept.Currency)) - (4 * Math.Max(W(HeadingConcept.Amount), isOpen)),
            ColumnMeaning.Amount => Math.Max(Both(W(HeadingConcept.Document), W(HeadingConcept.Amount), 4.5), 4 * W(HeadingConcept.Amount))
                - (4 * isOpen)
                - (2 * W(HeadingConcept.Local)),
            ColumnMeaning.Outstanding => Math.Max(Both(isOpen, W(HeadingConcept.Amount), 5), 4.5 * isOpen) - (2 * W(HeadingConcept.Local)),
            ColumnMeaning.Debit => (5 * W(HeadingConcept.Debit)) - (5 * W(HeadingConcept.Credit)),
            ColumnMeaning.Credit => (5 * W(HeadingConcept.Credit)) - (5 * W(HeadingConcept.Debit)),
            ColumnMeaning.Kind => Math.Max(Both(W(HeadingConcept.Document), W(HeadingConcept.Kind), 5), 4 * W(HeadingConcept.Kind))
                - (3 * Math.Max(W(HeadingConcept.Party), W(HeadingConcept.Currency))),
            ColumnMeaning.Email => 5 * W(HeadingConcept.Email),
            ColumnMeaning.Reference => (3.5 * W(HeadingConcept.Reference))
                - (3 * Math.Max(W(HeadingConcept.Document), W(HeadingConcept.Party))),
            ColumnMeaning.Unit => 4 * W(HeadingConcept.Unit),
            ColumnMeaning.Held => 4 * W(HeadingConcept.Held),
            _ => 0,
        };

        // “Order date” and “Customer phone” speak of a date and a customer, but of another thing first.
        return score - (4 * foreign);
    }

    private static double Both(double a, double b, double score) => a > 0 && b > 0 ? score * (a + b) / 2 : 0;

    /// <summary>The concepts of the words of one heading, in the languages of the file where a word is of several.</summary>
    private static Dictionary<HeadingConcept, double> Together(IReadOnlyList<IReadOnlyList<WordSense>> senses, HashSet<string> languages)
    {
        var found = new Dictionary<HeadingConcept, double>();
        foreach (var part in senses.SelectMany(w => w.GroupBy(s => s.Part)))
        {
            var ours = part.Where(s => languages.Contains(s.Language)).ToList();
            var of = ours.Count > 0 ? ours : [.. part];
            var share = of.Select(s => s.Concept).Distinct().Count();
            foreach (var sense in of)
            {
                found[sense.Concept] = Math.Max(found.GetValueOrDefault(sense.Concept), sense.Weight / Math.Max(1, share - 0.5));
            }
        }

        return found;
    }
}
