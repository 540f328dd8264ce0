using Rendal.App.Books;
using Rendal.App.Documents;
using Rendal.App.Review;
using Rendal.Core.Customers;
using Rendal.Core.Parcels;
using Rendal.Core.Review;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Html;
using Rendal.Mail;

namespace Rendal.App.Wordings;

/// <summary>A wording filled for a customer of the ledger, as it is being written.</summary>
/// <param name="Errors">What is wrong with the wording; the rest is empty where there is something.</param>
/// <param name="Words">The words.</param>
/// <param name="Language">The code of the language of the wording, in which any customer is shown.</param>
/// <param name="From">The sender as it is seen.</param>
/// <param name="Plain">The same for mail programs that show no HTML.</param>
/// <param name="Bytes">How large the message is, without the files that go with it.</param>
/// <param name="Remarks">What catches the eye in it.</param>
public sealed record WordingPreview(
    IReadOnlyList<string> Errors,
    FilledWording Words,
    string Language,
    string From,
    string Plain,
    int Bytes,
    IReadOnlyList<Remark> Remarks
);

/// <summary>Fills a wording for a customer of the ledger, as today's statement or reminder would have it.</summary>
public sealed class PreviewWording(BookStores stores, TimeProvider clock)
{
    /// <summary>Fills it.</summary>
    /// <param name="wording">The wording, as it is being written.</param>
    /// <param name="customer">The customer.</param>
    /// <param name="level">The level of a reminder; null for a statement.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">Nothing is open of the customer, there is no ledger, or a picture is not one of the
    /// book.</exception>
    public async Task<WordingPreview> RunAsync(Wording wording, string customer, int? level, CancellationToken cancel)
    {
        var (subject, body) = await MessageWords.CheckedAsync(stores, wording.Subject, wording.Body, cancel);
        var template = WordingReader.Read(wording with { Subject = subject, Body = body });
        if (template.Errors.Count > 0)
        {
            return new WordingPreview(template.Errors, new FilledWording("", "", []), wording.Language, "", "", 0, []);
        }

        var sample = await LayoutSample.OfAsync(customer, stores, clock, cancel);
        var layouts = await stores.Layouts.ListAsync(cancel);
        var inUse = new LayoutInUse(
            level is null ? RoundKind.Statements : RoundKind.Reminders,
            null,
            await stores.Layouts.UsesAsync(cancel)
        ).For(sample.Card, level);
        var layout = layouts.Find(l => l.Ref.Id == inUse) is { } stored ? LayoutReader.Read(stored.Layout) : LayoutReader.BuiltIn;
        var words = sample.Composer.Words(
            template,
            layout,
            sample.Card with
            {
                Language = wording.Language,
            },
            sample.Statements,
            ParcelComposer.NamesIn(sample.Accounts),
            level
        );
        var sender = (await stores.Senders.ListAsync(stores.Person, cancel))[0];
        var (_, bytes) = MessageBuilder.Make(
            new Draft(
                sender.Name,
                sender.Address,
                [sender.Address],
                [],
                words.Subject,
                words.Body,
                wording.Language,
                [],
                DateTimeOffset.UnixEpoch
            )
            {
                Pictures = await stores.Pictures.OfAsync(PicturePlaces.Of(words.Body), cancel),
                Codes = PaymentCodes.Of(words.Body),
            }
        );
        return new WordingPreview(
            [],
            words,
            wording.Language,
            sender.Name,
            PlainText.Of(words.Body),
            bytes.Length,
            await ReviewAsync(template, wording.Language, sample, level, cancel)
        );
    }

    private async Task<IReadOnlyList<Remark>> ReviewAsync(
        WordingTemplate template,
        string language,
        LayoutSample sample,
        int? level,
        CancellationToken cancel
    )
    {
        var names = await CustomerNames.OfAsync(stores, stores.Book, cancel);
        var office = sample.Card.HeadOffice.Length > 0 ? await stores.Customers.NamesAsync([sample.Card.HeadOffice], cancel) : [];
        var parcel = new ReviewedParcel(
            sample.Statements,
            [sample.Card.Name, stores.Book.Firm.Name, .. sample.Accounts.Select(a => a.Name), .. office.Values],
            HasFiles: true,
            HasCopies: false,
            language,
            language
        );
        return MessageReview.Of(sample.Composer.Read(template, sample.Card, sample.Statements, level, []).Text, parcel, names);
    }
}
