using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>Reads the amounts of a ledger row, signed so that what the customer owes is positive.</summary>
internal sealed class RowAmounts(LedgerCells cells, LedgerSurvey survey, ReadingSettings settings)
{
    private readonly Memo<Currency?> currencies = new(text => Currency.TryParse(text, out var currency) ? currency : null);

    /// <summary>
    /// The currency of the row: as its column says, as a sign or code in its amounts says, or the book's. Null with a finding where the
    /// column names none that is known.
    /// </summary>
    public Currency? ReadCurrency(FileRow row, string? customer)
    {
        var cell = cells.Cell(row, ColumnMeaning.Currency);
        if (!cell.IsEmpty)
        {
            if (currencies.Of(cell.Text) is { } named)
            {
                return named;
            }

            cells.Add(
                FindingCodes.CurrencyUnknown,
                Severity.Error,
                row,
                ColumnMeaning.Currency,
                customer,
                $"“{LedgerCells.Short(cell.Text)}” is not a currency code.",
                "Write the three letters of ISO 4217, for example GBP or EUR."
            );
            return null;
        }

        foreach (var meaning in new[] { ColumnMeaning.Outstanding, ColumnMeaning.Amount })
        {
            if (
                cells.Cell(row, meaning) is { IsEmpty: false, Number: null } written
                && WrittenAmount.TryTake(written.Text, out var amount)
                && amount.Currency is { } with
            )
            {
                return with;
            }
        }

        return settings.Currency;
    }

    /// <summary>The full and the outstanding amount; null with a finding where they cannot be read.</summary>
    public (decimal Original, decimal Open)? Read(FileRow row, ItemKind? kind, Currency currency, string? customer)
    {
        var hasOutstanding = cells.Column(ColumnMeaning.Outstanding) is not null;
        var hasAmount = cells.Column(ColumnMeaning.Amount) is not null;
        if (!hasOutstanding && !hasAmount)
        {
            return ReadDebitAndCredit(row, currency, customer) is { } net ? (net, net) : null;
        }

        var open = hasOutstanding ? ReadSigned(row, ColumnMeaning.Outstanding, kind, currency, customer, needed: true) : null;
        var original = hasAmount ? ReadSigned(row, ColumnMeaning.Amount, kind, currency, customer, needed: !hasOutstanding) : null;
        return (hasOutstanding ? open : original) is { } counted ? (original ?? counted, counted) : null;
    }

    /// <summary>What a total line says; null where it says nothing that can be read.</summary>
    public (decimal Said, ColumnReading Column)? ReadTotal(FileRow row)
    {
        if ((cells.Column(ColumnMeaning.Outstanding) ?? cells.Column(ColumnMeaning.Amount)) is { } column)
        {
            return ValueOf(row[column.Index], column) is { } said ? (said, column) : null;
        }

        return
            cells.Column(ColumnMeaning.Debit) is { } debit
            && cells.Column(ColumnMeaning.Credit) is { } credit
            && ValueOf(row[debit.Index], debit) is { } charged
            && ValueOf(row[credit.Index], credit) is { } credited
            ? (charged - credited, debit)
            : null;
    }

    private static decimal? ValueOf(Cell cell, ColumnReading column) =>
        cell.IsMerged
            ? null
            : cell.Number
                ?? (WrittenAmount.TryTake(cell.Text, out var amount) && amount.TryValue(column.Mark!.Value, out var value) ? value : null);

    private decimal? ReadDebitAndCredit(FileRow row, Currency currency, string? customer)
    {
        var debit = cells.Cell(row, ColumnMeaning.Debit);
        var credit = cells.Cell(row, ColumnMeaning.Credit);
        if (debit.IsMerged || credit.IsMerged)
        {
            NoteMerged(row, debit.IsMerged ? ColumnMeaning.Debit : ColumnMeaning.Credit, customer, Severity.Error);
            return null;
        }

        if (debit.IsEmpty && credit.IsEmpty)
        {
            cells.Add(
                FindingCodes.AmountMissing,
                Severity.Error,
                row,
                ColumnMeaning.Debit,
                customer,
                "Neither debit nor credit is filled.",
                "Fill one of them, or leave the row out."
            );
            return null;
        }

        decimal? charged = debit.IsEmpty ? 0 : ReadPlain(row, ColumnMeaning.Debit, currency, customer);
        decimal? credited = credit.IsEmpty ? 0 : ReadPlain(row, ColumnMeaning.Credit, currency, customer);
        if (charged is null || credited is null)
        {
            return null;
        }

        if (charged != 0 && credited != 0)
        {
            cells.Add(
                FindingCodes.DebitAndCredit,
                Severity.Warning,
                row,
                ColumnMeaning.Debit,
                customer,
                $"Debit {currency.Plain(charged.Value)} and credit {currency.Plain(credited.Value)} are both filled; the "
                    + $"difference of {currency.Plain(charged.Value - credited.Value)} counts.",
                "Look whether the row should be two."
            );
        }

        return charged - credited;
    }

    private decimal? ReadSigned(FileRow row, ColumnMeaning meaning, ItemKind? kind, Currency currency, string? customer, bool needed)
    {
        if (cells.Cell(row, meaning).IsEmpty)
        {
            if (needed)
            {
                cells.Add(
                    FindingCodes.AmountMissing,
                    Severity.Error,
                    row,
                    meaning,
                    customer,
                    "The amount is missing.",
                    "Fill it in, or leave the row out."
                );
            }

            return null;
        }

        if (cells.Cell(row, meaning).IsMerged)
        {
            NoteMerged(row, meaning, customer, needed ? Severity.Error : Severity.Warning);
            return null;
        }

        var value = ReadPlain(row, meaning, currency, customer);
        if (value is null || kind?.IsCredit() != true || value == 0)
        {
            return value;
        }

        var column = cells.Column(meaning)!;
        var signs = survey.Signs(column.Index);
        if (!column.SignsAreSet && (signs.Tied || (signs.Mixed && value < 0 == signs.Unsigned)))
        {
            var (stands, others) = value < 0 ? ("with a minus", "without") : ("without a minus", "with one");
            cells.Add(
                FindingCodes.SignUnclear,
                Severity.Error,
                row,
                meaning,
                customer,
                $"This {kind.Value.Code().Replace('-', ' ')} stands {stands}, "
                    + $"{(signs.Tied ? "as many others" : "most others")} {others}, so it is unclear which way it counts.",
                "Say whether it lowers what the customer owes."
            );
        }

        return column.UnsignedCredits && value > 0 ? -value : value;
    }

    /// <summary>A sum that spans rows is one sum, and each row that had it would have it again.</summary>
    private void NoteMerged(FileRow row, ColumnMeaning meaning, string? customer, Severity severity) =>
        cells.Add(
            FindingCodes.AmountMerged,
            severity,
            row,
            meaning,
            customer,
            $"The amount {LedgerCells.Short(cells.Text(row, meaning))} stands in a cell that spans rows; it counts in the "
                + "first of them alone.",
            "Write the row’s own amount here, or leave the row out."
        );

    private decimal? ReadPlain(FileRow row, ColumnMeaning meaning, Currency currency, string? customer)
    {
        var column = cells.Column(meaning)!;
        var cell = row[column.Index];
        decimal value;
        if (cell.Number is { } number)
        {
            value = number;
        }
        else if (cell.Date is not null || !WrittenAmount.TryTake(cell.Text, out var amount))
        {
            cells.Add(
                FindingCodes.AmountUnreadable,
                Severity.Error,
                row,
                meaning,
                customer,
                $"“{LedgerCells.Short(cell.Text)}” is not an amount.",
                "Correct it, or leave the row out."
            );
            return null;
        }
        else if (amount.Currency is { } written && written != currency)
        {
            cells.Add(
                FindingCodes.CurrencyUnknown,
                Severity.Error,
                row,
                meaning,
                customer,
                $"“{LedgerCells.Short(cell.Text)}” is in {written}, but the row is in {currency}.",
                "Correct one of the two."
            );
            return null;
        }
        else if (!amount.TryValue(column.Mark!.Value, out value))
        {
            cells.Add(
                FindingCodes.AmountUnreadable,
                Severity.Error,
                row,
                meaning,
                customer,
                $"“{LedgerCells.Short(cell.Text)}” does not go with the column’s {column.Notation}.",
                "Correct it, or set the decimal mark of the column."
            );
            return null;
        }

        var rounded = currency.Round(value);
        if (rounded != value)
        {
            cells.Add(
                FindingCodes.AmountFinerThanUnit,
                Severity.Warning,
                row,
                meaning,
                customer,
                $"{cell.Text} is finer than {currency} goes; it counts as {currency.Plain(rounded)}.",
                "Look whether the file holds unrounded amounts."
            );
        }

        return rounded;
    }
}
