using System.Globalization;
using System.Xml;

namespace Rendal.Files.Workbooks;

/// <summary>
/// What the sheets of an XLSX workbook say and the workbook reader does not tell: rows that are hidden in words, <c>hidden="true"</c> (it
/// knows the other way to write a boolean of XML, <c>1</c>), and cells with the error of a formula, which it takes for empty ones.
/// </summary>
internal sealed class SheetMarks : IDisposable
{
    private const int MostErrors = 200_000;

    private static readonly Marks None = new();

    private readonly string name;

    // Null for another kind of workbook, whose reader tells all of it.
    private readonly PackedFile? packed;
    private readonly Lazy<IReadOnlyDictionary<string, string>> parts;

    // By the part: any number of sheets may be in the same.
    private readonly Dictionary<string, Marks> known = [];

    /// <summary>Opens a workbook.</summary>
    /// <param name="name">Its name, for messages.</param>
    /// <param name="format">What its content says that it is.</param>
    /// <param name="open">Opens it anew.</param>
    /// <exception cref="FileRefused">It is damaged or under a password.</exception>
    public SheetMarks(string name, FileFormat format, Func<Stream> open)
    {
        this.name = name;
        packed = format == FileFormat.Xlsx ? new PackedFile(name, open) : null;
        parts = new(() => packed is null ? new Dictionary<string, string>() : XlsxParts.OfSheets(packed));
    }

    private static ReadOnlySpan<byte> Hidden => "hidden=\"true\""u8;

    private static ReadOnlySpan<byte> IsError => "t=\"e\""u8;

    /// <summary>Those of a sheet.</summary>
    public Marks Of(string sheet) =>
        !parts.Value.TryGetValue(sheet, out var part) ? None
        : known.TryGetValue(part, out var marks) ? marks
        : known[part] = Read(sheet, part);

    /// <inheritdoc/>
    public void Dispose() => packed?.Dispose();

    private Marks Read(string sheet, string part)
    {
        if (!Occurs(packed!, part))
        {
            return None;
        }

        var marks = new Marks();
        using var xml = XmlReader.Create(
            packed!.Open(part)!,
            new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CloseInput = true }
        );
        var (row, column) = (0, -1);
        while (xml.Read())
        {
            if (xml.NodeType != XmlNodeType.Element)
            {
                continue;
            }

            if (xml.LocalName == "col" && XlsxParts.IsTrue(xml.GetAttribute("hidden")))
            {
                marks.HideColumns(xml.GetAttribute("min"), xml.GetAttribute("max"));
            }
            else if (xml.LocalName == "row")
            {
                row = int.TryParse(xml.GetAttribute("r"), NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                    ? number
                    : row + 1;
                column = -1;
                if (XlsxParts.IsTrue(xml.GetAttribute("hidden")))
                {
                    marks.Hidden.Add(row);
                }
            }
            else if (xml.LocalName == "c")
            {
                column = xml.GetAttribute("r") is { } place && Column(place) is >= 0 and var said ? said : column + 1;
                if (xml.GetAttribute("t") == "e")
                {
                    marks.Add(row, column, Value(xml));
                    if (++marks.Count > MostErrors)
                    {
                        throw new FileRefused(
                            $"{name}, sheet “{sheet}” has more than {MostErrors} cells with the error of a formula. Correct "
                                + "them in your spreadsheet program."
                        );
                    }
                }
            }
        }

        return marks;
    }

    private static string Value(XmlReader xml)
    {
        using var cell = xml.ReadSubtree();
        return cell.ReadToDescendant("v") && cell.ReadElementContentAsString().Trim() is { Length: > 0 and < 20 } shown
            ? shown
            : "#ERROR!";
    }

    /// <summary>The column of <c>AB12</c>, from 0.</summary>
    private static int Column(string place)
    {
        var column = 0;
        foreach (var letter in place.TakeWhile(char.IsAsciiLetterUpper).Take(4))
        {
            column = (column * 26) + letter - 'A' + 1;
        }

        return column - 1;
    }

    /// <summary>Whether there is anything of that kind: hardly any sheet is gone through a second time.</summary>
    private static bool Occurs(PackedFile packed, string part)
    {
        using var content = packed.Open(part)!;
        var buffer = new byte[64 * 1024];
        var kept = 0;
        for (int read; (read = content.ReadAtLeast(buffer.AsSpan(kept), buffer.Length - kept, throwOnEndOfStream: false)) > 0; )
        {
            var filled = buffer.AsSpan(0, kept + read);
            if (filled.IndexOf(Hidden) >= 0 || filled.IndexOf(IsError) >= 0)
            {
                return true;
            }

            kept = Math.Min(Hidden.Length - 1, filled.Length);
            filled[^kept..].CopyTo(buffer);
        }

        return false;
    }

    /// <summary>What one sheet says.</summary>
    public sealed class Marks
    {
        private readonly Dictionary<int, List<(int Column, string Shown)>> errors = [];
        private readonly List<(int First, int Last)> columns = [];

        /// <summary>The numbers of the rows that are hidden in words, from 1.</summary>
        public HashSet<int> Hidden { get; } = [];

        /// <summary>How many rows were gone through.</summary>
        internal int Count { get; set; }

        /// <summary>Whether a column is hidden in words, from 0.</summary>
        public bool HidesColumn(int column) => columns.Exists(c => column >= c.First && column <= c.Last);

        /// <summary>Notes columns that are hidden, by the numbers of the first and the last, from 1.</summary>
        internal void HideColumns(string? first, string? last)
        {
            if (
                columns.Count < TableFile.MostColumns
                && int.TryParse(first, NumberStyles.None, CultureInfo.InvariantCulture, out var from)
                && int.TryParse(last, NumberStyles.None, CultureInfo.InvariantCulture, out var to)
            )
            {
                columns.Add((from - 1, to - 1));
            }
        }

        /// <summary>The cells of a row with errors, by their columns from 0, as they are displayed.</summary>
        public IReadOnlyList<(int Column, string Shown)> ErrorsOf(int row) => errors.TryGetValue(row, out var of) ? of : [];

        /// <summary>Notes a cell that holds the error of a formula, as it is shown: <c>#N/A</c>.</summary>
        internal void Add(int row, int column, string shown)
        {
            if (!errors.TryGetValue(row, out var of))
            {
                errors.Add(row, of = []);
            }

            of.Add((column, shown));
        }
    }
}
