using System.Collections.Concurrent;
using Rendal.Core.Customers;
using Rendal.Core.Enclosures;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;

namespace Rendal.Core.Sealing;

/// <summary>
/// Seals the parcels of one round, several at the same time where that is wanted. What they have in common is hashed once.
/// </summary>
/// <param name="round">The round's name, as the customer may see it.</param>
/// <param name="choice">The round's choice.</param>
/// <param name="rules">The rules for figures.</param>
/// <param name="letterhead">The firm.</param>
/// <param name="sentAs">The sender.</param>
public sealed class Sealer(string round, Choice choice, StatementRules rules, Firm letterhead, SentAs sentAs)
{
    private static readonly byte[] NothingEnclosed = EnclosedHash([], CopyForm.None);

    private readonly byte[] roundHash = CanonicalForm.Hash(
        new
        {
            Name = round,
            choice.AsOf,
            choice.Kind,
            choice.InterestPercent,
            rules.Ageing,
        }
    );
    private readonly byte[] letterheadHash = CanonicalForm.Hash(letterhead);
    private readonly byte[] senderHash = CanonicalForm.Hash(sentAs);
    private readonly ConcurrentDictionary<Wording, byte[]> wordings = new(ReferenceEqualityComparer.Instance);
    private readonly ConcurrentDictionary<Layout, byte[]> layouts = new(ReferenceEqualityComparer.Instance);

    /// <summary>The seal of a parcel.</summary>
    /// <param name="parcel">What is in it.</param>
    public ParcelSeal Seal(SealedContent parcel) =>
        ParcelSeal.Of(part =>
            part switch
            {
                SealPart.Figures => Figures(parcel.Statements),
                SealPart.Recipients => CanonicalForm.Hash(
                    new
                    {
                        parcel.Recipients,
                        parcel.OnPaper,
                        parcel.Accounts,
                        Own = parcel.Change?.Recipients,
                    }
                ),

                // What stands on no letter and decides nothing about one is changed as often as one likes.
                SealPart.Card => CanonicalForm.Hash(parcel.Card with { Notes = "", FromLedger = false }),
                SealPart.ReminderLevel => CanonicalForm.Hash(parcel.ReminderLevel),
                SealPart.Wording => parcel.Change is { Words: not null } or { DocumentNote.Length: > 0 } || parcel.SaidOfRound.Length > 0
                    ? CanonicalForm.Hash(
                        new
                        {
                            parcel.Wording,
                            parcel.Change?.DocumentNote,
                            parcel.SaidOfRound,
                        }
                    )
                    : wordings.GetOrAdd(parcel.Wording, CanonicalForm.Hash),
                SealPart.Layout => layouts.GetOrAdd(parcel.Layout, CanonicalForm.Hash),
                SealPart.Letterhead => letterheadHash,
                SealPart.Sender => senderHash,
                SealPart.Round => roundHash,
                SealPart.Enclosures => Enclosed(parcel.Enclosures, parcel.Copies),
                _ => throw new ArgumentOutOfRangeException(nameof(part)),
            }
        );

    /// <summary>
    /// The hash of <see cref="SealPart.Figures"/>: every line of statements. In whose totals they count, and what level they remind of, is
    /// no figure of theirs.
    /// </summary>
    public static byte[] Figures(IReadOnlyList<Statement> statements) => CanonicalForm.Hash(statements.Select(Bare));

    /// <summary>
    /// The hash of <see cref="SealPart.Enclosures"/>. By its content a file is the same, whichever of two that are alike it is.
    /// </summary>
    /// <param name="files">The files.</param>
    /// <param name="form">In what form copies are enclosed.</param>
    internal static byte[] Enclosed(IReadOnlyList<ParcelEnclosure> files, CopyForm form) =>
        files.Count == 0 ? NothingEnclosed : EnclosedHash(files, form);

    private static byte[] EnclosedHash(IReadOnlyList<ParcelEnclosure> files, CopyForm form) =>
        CanonicalForm.Hash(
            new { Files = files.Select(f => f with { File = 0 }).ToList(), Form = files.Any(f => f.IsCopy) ? form : CopyForm.None }
        );

    private static Statement Bare(Statement statement) =>
        statement with
        {
            AlsoOn = null,
            ReminderLevel = null,
            Parts = [.. statement.Parts.Select(Bare)],
        };
}

/// <summary>What is in a parcel, beside what it has in common with the others of its round.</summary>
/// <param name="Card">The card of who gets it.</param>
/// <param name="Statements">Its statements.</param>
/// <param name="Accounts">The accounts on them, by key, with their names.</param>
/// <param name="Recipients">The addresses it goes to.</param>
/// <param name="OnPaper">Whether it goes on paper.</param>
/// <param name="ReminderLevel">The level of the reminder that it is; null for none.</param>
/// <param name="Wording">The wording of its message, with the words of the parcel where it has some.</param>
/// <param name="Layout">The layout of its document.</param>
/// <param name="Change">What a person changed on it alone; null for nothing.</param>
public sealed record SealedContent(
    Customer Card,
    IReadOnlyList<Statement> Statements,
    IReadOnlyList<KeyValuePair<string, string>> Accounts,
    IReadOnlyList<string> Recipients,
    bool OnPaper,
    int? ReminderLevel,
    Wording Wording,
    Layout Layout,
    ParcelChange? Change
)
{
    /// <summary>The files that go with it beside its document.</summary>
    public IReadOnlyList<ParcelEnclosure> Enclosures { get; init; } = [];

    /// <summary>In what form copies are enclosed.</summary>
    public CopyForm Copies { get; init; }

    /// <summary>What its words say about the round beside its name, from <see cref="RoundIdentity.Said"/>.</summary>
    public string SaidOfRound { get; init; } = "";
}
