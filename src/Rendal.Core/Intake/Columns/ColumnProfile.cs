using System.Globalization;
using Rendal.Core.Money;

namespace Rendal.Core.Intake.Columns;

/// <summary>What the values of one column look like, in the sample.</summary>
internal sealed class ColumnProfile
{
    private const int MostKinds = 60;
    private const int FirstValues = 3;

    // An amount or a date is not longer.
    private const int LongestValue = 40;

    private readonly Dictionary<string, bool> asked = new(StringComparer.Ordinal);
    private readonly int count;
    private int amountValues;
    private int withDecimals;
    private int below;
    private int dateValues;
    private int addresses;
    private int currencies;
    private int kinds;
    private int withLetters;
    private int withFigures;
    private int withSpaces;
    private int inRuns;
    private int leadingZeros;
    private long length;

    private ColumnProfile(int count)
    {
        this.count = count;
        Texts = new string[count];
        Amounts = new decimal?[count];
        Dates = new DateOnly?[count];
    }

    /// <summary>The values as text, by row of the sample; empty where the cell is.</summary>
    public string[] Texts { get; }

    /// <summary>The values as amounts, by row of the sample; null where a cell holds none.</summary>
    public decimal?[] Amounts { get; }

    /// <summary>The values as days, by row of the sample; null where a cell holds none.</summary>
    public DateOnly?[] Dates { get; }

    /// <summary>How many rows of the sample have a value in the column.</summary>
    public int Filled { get; private set; }

    /// <summary>How many different values there are, as text.</summary>
    public int Distinct { get; private set; }

    /// <summary>How many of the rows have a value, from 0 to 1; 0 for a sample without rows.</summary>
    public double FilledShare => Share(Filled, count);

    /// <summary>Of the values, those that are amounts as they are written: with decimals, a sign or a currency, or any number.</summary>
    public double AmountShare => Share(amountValues, Filled);

    /// <summary>Of the values, those that have decimals, from 0 to 1; as all shares below, 0 where there are no values.</summary>
    public double DecimalShare => Share(withDecimals, Filled);

    /// <summary>Of the values, those below zero.</summary>
    public double BelowShare => Share(below, Filled);

    /// <summary>Of the values, those that are dates.</summary>
    public double DateShare => Share(dateValues, Filled);

    /// <summary>Of the values, those that hold an address for e-mail.</summary>
    public double AddressShare => Share(addresses, Filled);

    /// <summary>Of the values, those that are currencies.</summary>
    public double CurrencyShare => Share(currencies, Filled);

    /// <summary>Of the values, those that are known words for kinds.</summary>
    public double KindShare => Share(kinds, Filled);

    /// <summary>Of the values, those with a letter.</summary>
    public double LetterShare => Share(withLetters, Filled);

    /// <summary>Of the values, those with a figure.</summary>
    public double FigureShare => Share(withFigures, Filled);

    /// <summary>Of the values, those of several words.</summary>
    public double SpaceShare => Share(withSpaces, Filled);

    /// <summary>Of the values, those that are the same as the one above.</summary>
    public double RunShare => Share(inRuns, Filled);

    /// <summary>How many different values there are for each value: 1 where none stands twice.</summary>
    public double DistinctShare => Share(Distinct, Filled);

    /// <summary>Of the values, those that begin with a 0 before other figures, as codes do.</summary>
    public double LeadingZeroShare => Share(leadingZeros, Filled);

    /// <summary>The mean length of the values in characters; 0 where there are none.</summary>
    public double MeanLength => Share((int)Math.Min(length, int.MaxValue), Filled);

    /// <summary>
    /// Whether it could be a column of amounts: nearly all values are, and few of them are days or codes with a 0 in front.
    /// </summary>
    public bool IsAmountLike => Filled > 0 && AmountShare >= 0.85 && DateShare < 0.5 && LeadingZeroShare < 0.05;

    /// <summary>Whether it could be a column of dates: four in five of its values are.</summary>
    public bool IsDateLike => Filled > 0 && DateShare >= 0.8;

    /// <summary>What the first values would be read as, three at most; of those that cannot be read that way, the text.</summary>
    public IReadOnlyList<string> First(ColumnMeaning meaning) =>
        [
            .. Enumerable
                .Range(0, Texts.Length)
                .Where(i => Texts[i].Length > 0)
                .Take(FirstValues)
                .Select(i =>
                    meaning.IsAmount() && Amounts[i] is { } amount ? amount.ToString("#,##0.00", CultureInfo.InvariantCulture)
                    : meaning.IsDate() && Dates[i] is { } date ? date.ToString("d MMM yyyy", CultureInfo.InvariantCulture)
                    : LedgerCells.Short(Texts[i])
                ),
        ];

    /// <summary>
    /// Looks at one column of the sample. Values longer than any amount, date or word that says something count as text alone.
    /// </summary>
    public static ColumnProfile Of(IReadOnlyList<FileRow> rows, int index, ReadingSettings settings)
    {
        var profile = new ColumnProfile(rows.Count);
        var marks = new AmountColumn();
        var orders = new DateColumn();
        foreach (var row in rows)
        {
            if (row[index] is { IsText: true, Length: <= LongestValue } cell && cell.Text.AsSpan().ContainsAnyInRange('0', '9'))
            {
                marks.Show(cell.Text, row.Number);
                orders.Show(cell.Text, row.Number);
            }
        }

        var mark = marks.Decide(settings.Mark);
        var order = orders.Decide(settings.Order);
        var seen = new Dictionary<string, TextTraits>(StringComparer.Ordinal);
        var before = "";
        for (var i = 0; i < rows.Count; i++)
        {
            var text = profile.Show(i, rows[i][index], mark, order, seen);
            if (text.Length > 0)
            {
                profile.inRuns += text == before ? 1 : 0;
                before = text;
            }
        }

        profile.Distinct = seen.Count;
        return profile;
    }

    /// <summary>The value of a cell of amounts by itself; null where it is none.</summary>
    public static decimal? ValueOf(Cell cell, ReadingSettings settings) =>
        cell.Number
        ?? (
            WrittenAmount.TryTake(cell.Text, out var amount) && amount.TryValue(amount.Evidence() ?? settings.Mark, out var value)
                ? value
                : null
        );

    private static double Share(int part, int of) => of == 0 ? 0 : (double)part / of;

    private string Show(int at, Cell cell, DecimalMark mark, DateOrder order, Dictionary<string, TextTraits> seen)
    {
        Texts[at] = "";
        if (cell.IsEmpty || cell.IsError)
        {
            return "";
        }

        Filled++;
        var text = cell.Text;
        Texts[at] = text;
        length += text.Length;
        if (cell.Date is { } date)
        {
            Dates[at] = date;
            dateValues++;
            seen.TryAdd(text, default);
            return text;
        }

        if (cell.Number is { } number)
        {
            Count(at, number, cell.ShownAs is not null);
            withFigures++;
            seen.TryAdd(text, default);
            return text;
        }

        // Most columns have the same few texts over and over.
        if (!seen.TryGetValue(text, out var traits))
        {
            seen[text] = traits = TraitsOf(text, mark, order);
        }

        Count(at, traits);
        return text;
    }

    private TextTraits TraitsOf(string text, DecimalMark mark, DateOrder order)
    {
        var figures = text.AsSpan().ContainsAnyInRange('0', '9');
        var letters = text.Any(char.IsLetter);
        var traits = new TextTraits
        {
            HasLetters = letters,
            HasFigures = figures,
            HasSpaces = text.Contains(' ', StringComparison.Ordinal),
            HasAddress = text.Contains('@', StringComparison.Ordinal),
            IsCurrency = text.Length <= 3 && letters && Currency.TryParse(text, out _),
            IsKind = letters && text.Length <= 30 && IsKind(text),
        };
        if (!figures || text.Length > LongestValue)
        {
            return traits;
        }

        // Five figures could be the serial number of a day as well as a code; they are no date by themselves.
        if (
            text.Length >= 6
            && WrittenDate.TryTake(text, out var written)
            && written.TryDay(order, out var day)
            && day.Year is >= 1980 and <= 2100
        )
        {
            traits = traits with { Date = day };
        }

        return WrittenAmount.TryTake(text, out var amount) && amount.TryValue(mark, out var value)
            ? traits with
            {
                Amount = value,
                IsCode = text.Length > 1 && text[0] == '0' && char.IsAsciiDigit(text[1]),
            }
            : traits;
    }

    private void Count(int at, TextTraits traits)
    {
        if (traits.Date is { } day)
        {
            Dates[at] = day;
            dateValues++;
        }

        if (traits.Amount is { } value)
        {
            Count(at, value, traits.IsCode);
        }

        withLetters += traits.HasLetters ? 1 : 0;
        withFigures += traits.HasFigures ? 1 : 0;
        withSpaces += traits.HasSpaces ? 1 : 0;
        addresses += traits.HasAddress ? 1 : 0;
        currencies += traits.IsCurrency ? 1 : 0;
        kinds += traits.IsKind ? 1 : 0;
    }

    /// <summary>Whether a text is a word for a kind; of a column of many different texts it is not asked.</summary>
    private bool IsKind(string text)
    {
        if (!asked.TryGetValue(text, out var isKind) && asked.Count < MostKinds)
        {
            asked[text] = isKind = KindWords.Of(text) is not null;
        }

        return isKind;
    }

    private void Count(int at, decimal value, bool isCode)
    {
        Amounts[at] = value;
        amountValues++;
        leadingZeros += isCode ? 1 : 0;
        below += value < 0 ? 1 : 0;
        withDecimals += value.Scale == 0 ? 0 : 1;
    }

    /// <summary>What one text is, as far as a column is told by it.</summary>
    private readonly record struct TextTraits(
        DateOnly? Date,
        decimal? Amount,
        bool IsCode,
        bool HasLetters,
        bool HasFigures,
        bool HasSpaces,
        bool HasAddress,
        bool IsCurrency,
        bool IsKind
    );
}
