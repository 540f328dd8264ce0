namespace Rendal.Core.Enclosures;

/// <summary>Where a file stands among the documents of the ledger.</summary>
public enum CopyState
{
    /// <summary>It is the copy of one document or, by hand, of several of one customer.</summary>
    Matched,

    /// <summary>A person has to say what it is a copy of.</summary>
    Question,

    /// <summary>It is a copy of nothing in the ledger.</summary>
    LeftOver,
}

/// <summary>A file with where it stands.</summary>
/// <param name="File">The file.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Documents">The documents that it is a copy of; in question, those that it may be a copy of.</param>
/// <param name="Reason">Why it is not matched, in words; empty for one that is.</param>
public sealed record MatchedCopy(EnclosureFile File, CopyState State, IReadOnlyList<LedgerDocument> Documents, string Reason);

/// <summary>
/// Which file is the copy of which document. A document has the file that is its copy by its number alone; where a number is in two
/// customers' accounts, or two different files have one number, a person is asked, and until then neither goes anywhere.
/// </summary>
public sealed class CopyMatching
{
    private readonly Dictionary<(string Customer, string Key), List<MatchedCopy>> byDocument = [];

    private CopyMatching(IReadOnlyList<MatchedCopy> files)
    {
        Files = files;
        foreach (var file in files.Where(f => f.State != CopyState.LeftOver))
        {
            foreach (var document in file.Documents)
            {
                var key = (document.Customer, DocumentNumber.Key(document.Number));
                if (!byDocument.TryGetValue(key, out var of))
                {
                    byDocument[key] = of = [];
                }

                of.Add(file);
            }
        }
    }

    /// <summary>Nothing to match.</summary>
    public static CopyMatching None { get; } = new([]);

    /// <summary>All files, in the order in which they were given; of two with the same content the first alone.</summary>
    public IReadOnlyList<MatchedCopy> Files { get; }

    /// <summary>Matches files with the documents of a ledger.</summary>
    /// <param name="files">Those that were given in as copies.</param>
    /// <param name="numbers">The ledger.</param>
    public static CopyMatching Of(IEnumerable<EnclosureFile> files, DocumentNumbers numbers)
    {
        var matched = files.Select(f => ByItself(f, numbers)).ToList();

        // What a person said about a file holds, and is for them to take back; what was only recognised is asked about where another file
        // says the same.
        var contested = matched
            .Where(m => m.State == CopyState.Matched)
            .SelectMany(m => m.Documents.Select(d => (Document: d, m.File)))
            .GroupBy(m => m.Document)
            .Where(g => g.Select(m => m.File.Sha256).Distinct(StringComparer.Ordinal).Count() > 1 && g.Any(m => m.File.ByHand is null))
            .Select(g => g.Key)
            .ToHashSet();
        return new CopyMatching([
            .. matched
                .Select(m =>
                    m.State == CopyState.Matched && m.Documents.FirstOrDefault(contested.Contains) is { } document
                        ? m with
                        {
                            State = CopyState.Question,
                            Reason = $"there is another file for {document.Number}",
                        }
                        : m
                )
                .DistinctBy(m =>
                    (m.File.Sha256, m.State, Documents: string.Join('\n', m.Documents.Select(d => $"{d.Customer} {d.Number}")))
                ),
        ]);
    }

    /// <summary>The copies of a document; none where it is missing or in question.</summary>
    public IReadOnlyList<EnclosureFile> Of(string customer, string number) =>
        [.. All(customer, number).Where(m => m.State == CopyState.Matched).Select(m => m.File)];

    /// <summary>The files that may be a copy of a document, about which a person has to decide.</summary>
    public IReadOnlyList<MatchedCopy> InQuestion(string customer, string number) =>
        [.. All(customer, number).Where(m => m.State == CopyState.Question)];

    private List<MatchedCopy> All(string customer, string number) =>
        byDocument.GetValueOrDefault((customer, DocumentNumber.Key(number))) ?? [];

    private static MatchedCopy ByItself(EnclosureFile file, DocumentNumbers numbers)
    {
        if (file.ByHand is { } hand)
        {
            var said = hand.Numbers.SelectMany(numbers.Of).Where(d => d.Customer == hand.Customer).ToList();
            return said.Count > 0 ? new MatchedCopy(file, CopyState.Matched, said, "")
                : hand.Numbers.Count == 0 ? new MatchedCopy(file, CopyState.LeftOver, [], "it is a copy of nothing, as you said")
                : new MatchedCopy(file, CopyState.LeftOver, [], $"{string.Join(" and ", hand.Numbers)} is not in the ledger any more");
        }

        if (file.Recognised.Number is { Length: > 0 } number)
        {
            var documents = numbers.Of(number);
            return documents.Select(d => d.Customer).Distinct(StringComparer.Ordinal).Count() switch
            {
                0 => new MatchedCopy(file, CopyState.LeftOver, [], $"{number} is not in the ledger any more"),
                1 => new MatchedCopy(file, CopyState.Matched, documents, ""),
                var customers => new MatchedCopy(
                    file,
                    CopyState.Question,
                    documents,
                    FormattableString.Invariant($"{number} is in the accounts of {customers} customers")
                ),
            };
        }

        var candidates = file.Recognised.Candidates.SelectMany(numbers.Of).ToList();
        return candidates.Count > 0
            ? new MatchedCopy(file, CopyState.Question, candidates, file.Recognised.Reason)
            : new MatchedCopy(file, CopyState.LeftOver, [], file.Recognised.Reason);
    }
}
