using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Rendal.App.Review;
using Rendal.App.Rounds;
using Rendal.Core.Customers;
using Rendal.Core.Enclosures;
using Rendal.Core.Parcels;
using Rendal.Core.Review;
using Rendal.Core.Statements;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Files.Docx;
using Rendal.Files.Pdf;
using Rendal.Store.Returned;

namespace Rendal.App.Readiness;

/// <summary>What a person has to see to before a parcel can go; several are looked at at the same time.</summary>
internal sealed class ParcelReadiness : IDisposable
{
    /// <summary>The problem of a parcel whose wording has an error.</summary>
    public const string WordingError = "the wording has an error";

    /// <summary>The problem of a parcel whose layout has an error.</summary>
    public const string LayoutError = "the layout has an error";

    private readonly RoundContent content;
    private readonly Dictionary<string, ReturnedAddress> returned;
    private readonly MessageSizes sizes;
    private readonly NameIndex names;

    private ParcelReadiness(RoundContent content, Dictionary<string, ReturnedAddress> returned, MessageSizes sizes, NameIndex names) =>
        (this.content, this.returned, this.sizes, this.names) = (content, returned, sizes, names);

    /// <summary>Loads what it needs to know beside the round.</summary>
    public static async Task<ParcelReadiness> OfAsync(RoundContent content, CancellationToken cancel) =>
        new(
            content,
            await content.Stores.Returned.AddressesAsync(cancel),
            new MessageSizes(content.Sender, await content.Stores.Pictures.OfAsync(content.Pictures, cancel)),
            await CustomerNames.OfAsync(content.Stores, content.Book, cancel)
        );

    /// <summary>
    /// A text that is another where the same parcel may be ready now and not then, though the book has the same changes: it says which
    /// addresses are known as bad.
    /// </summary>
    public string OfAddresses =>
        Convert.ToHexStringLower(
            SHA256.HashData(
                Encoding.UTF8.GetBytes(
                    string.Join('\n', returned.Values.OrderBy(a => a.Address, StringComparer.Ordinal).Select(a => a.ToString()))
                )
            )
        );

    /// <inheritdoc/>
    public void Dispose() => sizes.Dispose();

    /// <summary>Whether files may go with several messages, which depends on how large all of it is.</summary>
    public bool MaySplit(ParcelEnclosures enclosed) => content.Round.Enclosing.Split && enclosed.Files.Count > 0;

    /// <summary>The words of the message of a parcel that is ready.</summary>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="statements">Its statements.</param>
    /// <param name="accounts">The accounts on them.</param>
    /// <param name="level">The level of the reminder that it is; null for none.</param>
    /// <param name="assigned">Its wording.</param>
    /// <param name="enclosed">The files that go with it.</param>
    public FilledWording Words(
        Customer card,
        IReadOnlyList<Statement> statements,
        IReadOnlyList<ParcelAccount> accounts,
        int? level,
        AssignedWording assigned,
        ParcelEnclosures enclosed
    ) =>
        content.Composer.Words(
            content.WordingFor(card, assigned),
            content.LayoutFor(card, level).Template,
            card,
            statements,
            ParcelComposer.NamesIn(accounts),
            level,
            Additions(card, enclosed)
        );

    /// <summary>
    /// The first thing that a person has to see to, in words, empty where the parcel is ready; and the words of its message, as they were
    /// filled for this. Null where a person has to see to something before that. And the files, each with the message that it goes with.
    /// </summary>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="statements">Its statements.</param>
    /// <param name="accounts">The accounts on them.</param>
    /// <param name="recipients">Who gets the message.</param>
    /// <param name="level">The level of the reminder that it is; null for none.</param>
    /// <param name="assigned">Its wording.</param>
    /// <param name="enclosed">The files that go with it.</param>
    public (string Problem, FilledWording? Words, IReadOnlyList<ParcelEnclosure> Files) Look(
        Customer card,
        IReadOnlyList<Statement> statements,
        IReadOnlyList<ParcelAccount> accounts,
        Recipients recipients,
        int? level,
        AssignedWording assigned,
        ParcelEnclosures enclosed
    )
    {
        // Who gets post alone is asked for nothing that only the message needs.
        var hasMessage = card.Delivery != Core.Customers.Delivery.Post || recipients.All.Count > 0;
        if (hasMessage && content.MissingColumn.Length > 0)
        {
            return (content.MissingColumn, null, enclosed.Files);
        }

        if (hasMessage && assigned.Problem.Length > 0)
        {
            return (assigned.Problem, null, enclosed.Files);
        }

        if (hasMessage && content.WordingFor(card, assigned).Errors.Count > 0)
        {
            return (WordingError, null, enclosed.Files);
        }

        if (content.LayoutFor(card, level).Template.Errors.Count > 0)
        {
            return (LayoutError, null, enclosed.Files);
        }

        if (card.GoesByPost && content.LayoutFor(card, level).Template.Layout.Letter is not null && WordProcessor.Program is null)
        {
            return (WordProcessor.Missing, null, enclosed.Files);
        }

        if (card.Delivery == Core.Customers.Delivery.Both && !card.GoesByPost)
        {
            return ("it is to get post too, and the card has no postal address", null, enclosed.Files);
        }

        if (card.Delivery == Core.Customers.Delivery.Both && recipients.To.Count == 0)
        {
            return ("it is to get messages too, and the card has no e-mail address", null, enclosed.Files);
        }

        if (recipients.Bad.Count > 0)
        {
            return ($"“{recipients.Bad[0]}” is no address", null, enclosed.Files);
        }

        if (recipients.All.Select(a => returned.GetValueOrDefault(a)).FirstOrDefault(a => a is not null) is { } back)
        {
            return (
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{(back.IsRefused ? $"the mail server refused “{back.Address}”" : $"mail to “{back.Address}” came back")} "
                        + $"on {content.Book.DayOf(back.Since):d MMMM yyyy}"
                ),
                null,
                enclosed.Files
            );
        }

        if (recipients.All.Count > AddressList.MostRecipients)
        {
            return ($"more than {AddressList.MostRecipients} addresses", null, enclosed.Files);
        }

        if (enclosed.Problem.Length > 0)
        {
            return (enclosed.Problem, null, enclosed.Files);
        }

        if (statements.SelectMany(s => s.Accounts).FirstOrDefault(s => s.ForwardDifference != 0) is { Forward: { } forward } differs)
        {
            return (
                $"{(differs.Customer == card.Key ? "its movements" : $"the movements of {differs.Customer}")} come to "
                    + $"{differs.Currency.Plain(forward.Closing)} {differs.Currency}, its open items to "
                    + $"{differs.Currency.Plain(differs.Total)}",
                null,
                enclosed.Files
            );
        }

        var (words, paper) = content.Composer.Fill(
            content.WordingFor(card, assigned),
            content.LayoutFor(card, level).Template,
            card,
            statements,
            ParcelComposer.NamesIn(accounts),
            level,
            Additions(card, enclosed)
        );
        var problem =
            hasMessage && words.EmptySlots is [var slot, ..] ? $"{slot.Label.ToLowerInvariant()} is empty"
            : paper.EmptySlots is [var onPaper, ..] ? $"{onPaper.Label.ToLowerInvariant()} is empty on the document"
            : paper.Problem.Length > 0 ? paper.Problem
            : DocumentRenderer.Unprintable(paper) is { } character ? $"“{character}” cannot be printed: no font has it"
            : "";
        if (problem.Length > 0)
        {
            return (problem, words, enclosed.Files);
        }

        var layout = content.LayoutFor(card, level).Template.Layout;
        var (tooLarge, files) = sizes.Fit(card, recipients, words, paper, layout, enclosed.Files, content.Round.Enclosing.Split);
        return (tooLarge, words, files);
    }

    /// <summary>What catches the eye in a message, and which passages of its wording stand in it.</summary>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="statements">Its statements.</param>
    /// <param name="accounts">The accounts on them.</param>
    /// <param name="level">The level of the reminder that it is; null for none.</param>
    /// <param name="assigned">Its wording.</param>
    /// <param name="enclosed">The files that go with it.</param>
    public (IReadOnlyList<Remark> Remarks, long Passages) Review(
        Customer card,
        IReadOnlyList<Statement> statements,
        IReadOnlyList<ParcelAccount> accounts,
        int? level,
        AssignedWording assigned,
        ParcelEnclosures enclosed
    )
    {
        var wording = content.WordingFor(card, assigned);
        var (text, passages) = content.Composer.Read(wording, card, statements, level, enclosed.Copied);
        var parcel = new ReviewedParcel(
            statements,
            [
                card.Name,
                content.Book.Firm.Name,
                .. accounts.Select(a => a.Name),
                .. card.HeadOffice.Length > 0 ? new[] { content.Card(card.HeadOffice).Name } : [],
            ],
            content.LayoutFor(card, level).Template.Layout.Forms.Count + enclosed.Files.Count > 0,
            enclosed.Copied.Count > 0,
            content.WordingOf(assigned.Id).Language,
            card.Language
        );
        return (MessageReview.Of(text, parcel, names), passages);
    }

    private ParcelAdditions Additions(Customer card, ParcelEnclosures enclosed) =>
        new(content.ChangeOf(card.Key)?.DocumentNote ?? "", enclosed.Copied);
}
