using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>What a person has decided about the reading of one file; the rest is worked out.</summary>
public sealed record ReadingChange
{
    /// <summary>Nothing decided.</summary>
    public static ReadingChange None { get; } = new();

    /// <summary>Who decided about a column, in plain words.</summary>
    internal string DecidedBy(int column) => Remembered.Contains(column) ? "as last time" : "set by you";

    /// <summary>Whether a person said of a column what it is, in this file or in an earlier one of these headings.</summary>
    internal bool IsSaid(int column, bool isDecided) => isDecided && (!Remembered.Contains(column) || SaidBefore.Contains(column));

    /// <summary>Whether a person said of a column, in this file, what it is.</summary>
    internal bool IsSaidHere(int column) => Meanings.ContainsKey(column) && !Remembered.Contains(column);

    /// <summary>How the file is opened: sheet, delimiter and encoding, each as it is found where nobody said.</summary>
    public FileOpening Opening { get; init; } = FileOpening.Unsaid;

    /// <summary>The row of the headings, from 1; in a customer list 0 for a file without any. Null where nobody said.</summary>
    public int? HeadingRow { get; init; }

    /// <summary>What columns are, by their index from 0.</summary>
    public IReadOnlyDictionary<int, ColumnMeaning> Meanings { get; init; } = new Dictionary<int, ColumnMeaning>();

    /// <summary>What columns of a customer list are, by their index from 0.</summary>
    public IReadOnlyDictionary<int, CardField> Fields { get; init; } = new Dictionary<int, CardField>();

    /// <summary>
    /// The columns, by their index from 0, for which a remembered reading decided; a person has said nothing of them this time.
    /// </summary>
    public IReadOnlyList<int> Remembered { get; init; } = [];

    /// <summary>
    /// The columns, by their index from 0, for which a person said in an earlier file of these headings what they are.
    /// </summary>
    public IReadOnlyList<int> SaidBefore { get; init; } = [];

    /// <summary>What people said of headings in other files of the book.</summary>
    public TaughtHeadings Taught { get; init; } = TaughtHeadings.None;

    /// <summary>The decimal mark of columns of amounts that do not tell by themselves, by their index from 0.</summary>
    public IReadOnlyDictionary<int, DecimalMark> Marks { get; init; } = new Dictionary<int, DecimalMark>();

    /// <summary>The order of day and month of columns of dates that do not tell by themselves, by their index from 0.</summary>
    public IReadOnlyDictionary<int, DateOrder> Orders { get; init; } = new Dictionary<int, DateOrder>();

    /// <summary>Whether credits stand without a sign in columns of amounts, by their index from 0.</summary>
    public IReadOnlyDictionary<int, bool> UnsignedCredits { get; init; } = new Dictionary<int, bool>();

    /// <summary>Whether a row without a customer is the one’s above it; null where nobody has said so, and it is found out.</summary>
    public bool? CarriesDown { get; init; }

    /// <summary>Whether rows that the workbook hides are left out; null where nobody has said so, and they are read.</summary>
    public bool? LeavesOutHidden { get; init; }

    /// <summary>Whether columns that the workbook hides are left out; null where nobody has said so, and they are read.</summary>
    public bool? LeavesOutHiddenColumns { get; init; }

    /// <summary>What kind of item a word of the file stands for that is not among the known ones, by the word as it is written.</summary>
    public IReadOnlyDictionary<string, Ledger.ItemKind> Kinds { get; init; } = new Dictionary<string, Ledger.ItemKind>();

    /// <summary>Totals that a person knows from elsewhere, by currency code, with which the sum that was read is compared.</summary>
    public IReadOnlyDictionary<string, decimal> Totals { get; init; } = new Dictionary<string, decimal>();
}
