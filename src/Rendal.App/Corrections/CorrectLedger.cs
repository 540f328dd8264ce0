using Rendal.App.Books;
using Rendal.App.Intake;
using Rendal.App.Progress;
using Rendal.App.Rounds;
using Rendal.Core.Intake;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Store.Intake;
using Rendal.Store.Rounds;

namespace Rendal.App.Corrections;

/// <summary>
/// Finds what a word or figure of a parcel was read from in the ledger, and puts it right there. The rows of a kept ledger do not change:
/// its file is taken in once more with the correction, in place of the first, and the open rounds are made from that.
/// </summary>
public sealed class CorrectLedger(BookStores stores, OpenedFiles files, TimeProvider clock)
{
    /// <summary>
    /// The cell that something in a parcel was read from; null where the file has no such column, so that it was reckoned.
    /// </summary>
    /// <param name="parcel">The parcel.</param>
    /// <param name="origin">Of a row.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The parcel is not there, or its ledger has no such row.</exception>
    public async Task<LedgerCell?> FindAsync(long parcel, Origin origin, CancellationToken cancel)
    {
        var (round, intake) = await LedgerOfAsync(parcel, cancel);
        var at = RowInFile.Open(stores, files, intake, origin.Row, cancel);
        if (OriginColumn.Of(at.Reading, at.Row, origin.Field) is not { } column)
        {
            return null;
        }

        var says = at.Row[column.Index].Text;
        var made = (await stores.Corrections.OfRowsAsync(intake.Id, [origin.Row], cancel))[origin.Row];
        return new LedgerCell(
            intake.FileName,
            at.Table.Sheet,
            origin.Row,
            column.Heading,
            says,
            made.LastOrDefault(c => c.Correction.Column == column.Heading)?.Correction.Becomes ?? says,
            round.ReleasedAt is null && (await stores.Intakes.CurrentAsync(cancel))?.Id == intake.Id
        );
    }

    /// <summary>Puts the cell right, and makes up the round of the parcel anew.</summary>
    /// <param name="parcel">The parcel.</param>
    /// <param name="origin">Of a row.</param>
    /// <param name="becomes">What holds instead of what the file says.</param>
    /// <param name="meter">Is told how far it has come.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">It cannot be put right: something of the round was released, another ledger was kept since, the
    /// file has no such cell, or the row could not be used any more. Nothing is changed then.</exception>
    public async Task RunAsync(long parcel, Origin origin, string becomes, ProgressMeter meter, CancellationToken cancel)
    {
        var (round, intake) = await LedgerOfAsync(parcel, cancel);
        if (round.ReleasedAt is not null)
        {
            throw ProblemException.Conflict("Parcels of this round were released; what they were made from stays as it is.");
        }

        if ((await stores.Intakes.CurrentAsync(cancel))?.Id != intake.Id)
        {
            throw Superseded();
        }

        var at = RowInFile.Open(stores, files, intake, origin.Row, cancel);
        var column = OriginColumn.Of(at.Reading, at.Row, origin.Field)
            ?? throw ProblemException.Invalid($"{intake.FileName} has no column for it; it was reckoned.");
        var correction = at.PutRight(column, becomes);
        var before = (await stores.Corrections.HoldingAsync(cancel)).FirstOrDefault(c => IsSameCell(c, correction));
        await stores.Corrections.AddAsync(correction, at.Source, stores.Person, clock.GetUtcNow(), cancel);
        try
        {
            var now = await UsableAsync(intake, origin.Row, correction, meter, cancel);
            await DemandSameItemAsync(parcel, round, now, cancel);
            await TakeInAgainAsync(intake, round.Id, meter, cancel);
        }
        catch
        {
            await PutBackAsync(correction, before, at.Source);
            throw;
        }

        await new PrepareRound(stores, clock).RunAsync(round.Id, meter, cancel);
    }

    /// <summary>Keeps the file once more in place of the first, or leaves no trace in the list of intakes.</summary>
    private async Task TakeInAgainAsync(IntakeRecord intake, long round, ProgressMeter meter, CancellationToken cancel)
    {
        var again = await new BeginIntake(stores, files, clock).AgainAsync(intake.Id, null, cancel);
        try
        {
            await new KeepIntake(stores, files, clock).RunAsync(
                again.Id,
                sure: true,
                emptyClears: false,
                meter,
                cancel,
                insteadOf: new PutRightIntake(intake.Id, round)
            );
        }
        catch
        {
            await stores.Intakes.ForgetAsync(again.Id, CancellationToken.None);
            throw;
        }
    }

    /// <summary>The row as it would be kept, with the correction.</summary>
    private async Task<LedgerRow?> UsableAsync(
        IntakeRecord intake,
        int row,
        Correction correction,
        ProgressMeter meter,
        CancellationToken cancel
    )
    {
        LedgerRow? kept = null;
        var look = await LedgerLook.OpenAsync(stores, intake, files, meter, cancel);
        var reader = look.Reader(meter, "reading the rows", cancel);
        foreach (var read in reader.Rows())
        {
            if (read.SetAside?.Source.Row == row)
            {
                var why = reader.Findings.Listed().FirstOrDefault(f => f.Source.Row == row && f.Severity == Severity.Error);
                throw ProblemException.Invalid(
                    $"With that the row could not be used, and would be on no statement. {why?.Message} {why?.Remedy}".TrimEnd()
                );
            }

            kept = read.Row?.Source.Row == row ? read.Row : kept;
        }

        return reader.Corrected.Where(c => c.Row != row && IsSameCell(c.Correction, correction)).ToList() is [var alike, ..]
            ? throw ProblemException.Conflict(
                $"Rows {row} and {alike.Row} of {intake.FileName} are alike in customer, kind, number and what is to be put right, so "
                    + "that one correction would change both. Put it right in the file, and take that in."
            )
            : kept;
    }

    /// <summary>
    /// What was said about an item is known by its number. Under another it would be forgotten, and an item in dispute would go out.
    /// </summary>
    private async Task DemandSameItemAsync(long parcel, RoundRecord round, LedgerRow? now, CancellationToken cancel)
    {
        var (_, record) = (await stores.Rounds.ParcelAsync(parcel, cancel))!.Value;
        var rows = await stores.Ledger.RowsAsync(round.IntakeId, record.Accounts.Select(a => a.Key), cancel);
        if (now is null || rows.Find(r => r.Source.Row == now.Source.Row) is not { } before || ItemKey.Of(before) == ItemKey.Of(now))
        {
            return;
        }

        var key = ItemKey.Of(before).Text;
        var settlements = (await stores.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement.Said);
        var said =
            (await stores.Holds.ListAsync(cancel)).Exists(h => h.Hold.Item == key) ? "held back"
            : (await stores.Decisions.RoundsOfItemAsync(round.IntakeId, key, cancel)) is [var of, ..]
                ? $"taken out or put in by hand in “{of}”"
            : settlements.Any(s => s.Credit == key || s.Charge == key) ? "settled by hand"
            : "";
        if (said.Length > 0)
        {
            throw ProblemException.Conflict(
                $"{ItemName.Of(before)} is {said}, and is known by what you are about to change. Take that back first, put this right, "
                    + "and say it again."
            );
        }
    }

    /// <summary>What held of the cell before holds again, whether or not somebody still waits for it.</summary>
    private async Task PutBackAsync(Correction correction, Correction? before, SourceRef source)
    {
        if (before is not null)
        {
            await stores.Corrections.AddAsync(before, source, stores.Person, clock.GetUtcNow(), CancellationToken.None);
            return;
        }

        var holding = await stores.Corrections.HoldingAsync(CancellationToken.None);
        if (holding.FirstOrDefault(c => IsSameCell(c, correction)) is { } added)
        {
            await stores.Corrections.TakeBackAsync(added, stores.Person, clock.GetUtcNow(), CancellationToken.None);
        }
    }

    private static bool IsSameCell(Correction one, Correction other) =>
        one.Kind == other.Kind && one.Of == other.Of && one.Column == other.Column;

    private async Task<(RoundRecord Round, IntakeRecord Intake)> LedgerOfAsync(long parcel, CancellationToken cancel)
    {
        var (id, _) = await stores.Rounds.ParcelAsync(parcel, cancel) ?? throw ProblemException.NotFound("This parcel");
        var round = await stores.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        return (round, await TheIntake.OfAsync(stores, round.IntakeId, cancel));
    }

    private static ProblemException Superseded() =>
        ProblemException.Conflict(
            "This round is made from a ledger that another took the place of. Put it right in that one, under Ledger, and begin a round "
                + "from it."
        );
}
