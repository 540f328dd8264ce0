using MimeKit;
using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Mail;
using Rendal.Store.Returned;

namespace Rendal.App.Returned;

/// <summary>Takes one message that came back in, and says what became of it.</summary>
public sealed class ReturnedTaking(NpgsqlDataSource source, long book, TimeProvider clock)
{
    /// <summary>Takes a message in whatever it is about; one that was taken in before is not taken in twice.</summary>
    /// <param name="from">The file or mailbox that it is from.</param>
    /// <param name="message">The message.</param>
    /// <param name="bytes">It as it came.</param>
    /// <param name="person">Who takes it in; null where it is fetched without anybody.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<TakenReturn> TakeAsync(string from, MimeMessage message, byte[] bytes, long? person, CancellationToken cancel) =>
        TakeAsync(from, BounceReader.Read(message), bytes, person, cancel);

    /// <summary>
    /// Takes it in where it is a report, or may be one, or an automatic reply, about a parcel; null where it is not: a mailbox
    /// holds other mail too, and that is nobody's business here.
    /// </summary>
    public async Task<TakenReturn?> TakeIfAboutAParcelAsync(
        string from,
        MimeMessage message,
        byte[] bytes,
        long? person,
        CancellationToken cancel
    )
    {
        var mail = BounceReader.Read(message);
        return mail.Kind != ReturnKind.Other && await new ReturnedStore(source, book).IsAboutAParcelAsync(mail, cancel)
            ? await TakeAsync(from, mail, bytes, person, cancel)
            : null;
    }

    private async Task<TakenReturn> TakeAsync(string from, ReturnedMessage mail, byte[] bytes, long? person, CancellationToken cancel)
    {
        var taken = await new ReturnedStore(source, book).TakeAsync(mail, bytes, person, clock.GetUtcNow(), cancel);
        var outcome = taken.IsKnown
            ? "known"
            : taken.Concern switch
            {
                null => "fits-none",
                { Kind: ReturnKind.Failed } => "returned",
                { Kind: ReturnKind.Other } => mail.IsReport ? "delivered" : "answer",
                var concern => concern.Kind.Code(),
            };
        return new TakenReturn(
            from,
            outcome,
            taken.Customer,
            taken.CustomerName,
            taken.Concern?.Addresses ?? [.. mail.Recipients.Select(r => r.Address)],
            taken.Concern?.Reason ?? mail.Reason
        );
    }
}
