namespace Rendal.Core.Enclosures;

/// <summary>Which document a file is a copy of, as its name and its text say.</summary>
/// <param name="Number">
/// The <see cref="DocumentNumber.Key"/> of the one document that it is sure to be a copy of; empty where it is not.
/// </param>
/// <param name="Candidates">
/// The keys that it may be a copy of, where a person has to say which; none where it is sure, or of nothing.
/// </param>
/// <param name="Reason">
/// Why it is not sure, or of nothing, in words: <c>its name says TL 10234, its text TL 10240</c>; empty where it is sure.
/// </param>
public sealed record Recognised(string Number, IReadOnlyList<string> Candidates, string Reason)
{
    /// <summary>What is said of a file in which no number was found.</summary>
    public const string NoNumber = "no number of the ledger is in its name or its text";

    /// <summary>It is a copy of one document.</summary>
    public static Recognised As(string number) => new(number, [], "");

    /// <summary>It is a copy of nothing in the ledger.</summary>
    public static Recognised Nothing(string reason) => new("", [], reason);

    /// <summary>A person has to say.</summary>
    public static Recognised Question(IEnumerable<string> candidates, string reason) =>
        new("", [.. candidates.Distinct(StringComparer.Ordinal)], reason);
}
