using System.Globalization;
using System.Text;

namespace Rendal.Core.Layouts;

/// <summary>The kind of a bar code.</summary>
public enum BarCodeKind
{
    /// <summary>No bar code.</summary>
    None,

    /// <summary>Code 128 (ISO/IEC 15417), code sets B and C: printable ASCII.</summary>
    Code128,

    /// <summary>Code 39 (ISO/IEC 16388), without check character: capitals, digits, space and <c>- . $ / + %</c>.</summary>
    Code39,
}

/// <summary>A text as a bar code.</summary>
/// <param name="Kind">The kind; not <see cref="BarCodeKind.None"/>.</param>
/// <param name="Text">The text; <see cref="Problem"/> tells what it may be.</param>
public sealed record BarCode(BarCodeKind Kind, string Text)
{
    /// <summary>The most characters that can be read off a sheet.</summary>
    public const int Longest = 40;

    /// <summary>How many times as wide as a narrow bar a wide one of Code 39 is.</summary>
    private const float Wide = 2.5f;

    private const string Characters39 = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ-. *$/+%";

    // ISO/IEC 16388, table 1: narrow and wide, bars and spaces in turn.
    private static readonly string[] Patterns39 =
    [
        "nnnwwnwnn",
        "wnnwnnnnw",
        "nnwwnnnnw",
        "wnwwnnnnn",
        "nnnwwnnnw",
        "wnnwwnnnn",
        "nnwwwnnnn",
        "nnnwnnwnw",
        "wnnwnnwnn",
        "nnwwnnwnn",
        "wnnnnwnnw",
        "nnwnnwnnw",
        "wnwnnwnnn",
        "nnnnwwnnw",
        "wnnnwwnnn",
        "nnwnwwnnn",
        "nnnnnwwnw",
        "wnnnnwwnn",
        "nnwnnwwnn",
        "nnnnwwwnn",
        "wnnnnnnww",
        "nnwnnnnww",
        "wnwnnnnwn",
        "nnnnwnnww",
        "wnnnwnnwn",
        "nnwnwnnwn",
        "nnnnnnwww",
        "wnnnnnwwn",
        "nnwnnnwwn",
        "nnnnwnwwn",
        "wwnnnnnnw",
        "nwwnnnnnw",
        "wwwnnnnnn",
        "nwnnwnnnw",
        "wwnnwnnnn",
        "nwwnwnnnn",
        "nwnnnnwnw",
        "wwnnnnwnn",
        "nwwnnnwnn",
        "nwnnwnwnn",
        "nwnwnwnnn",
        "nwnwnnnwn",
        "nwnnnwnwn",
        "nnnwnwnwn",
    ];

    // ISO/IEC 15417, table 1: widths of bars and spaces in turn, for the values 0 to 105.
    private static readonly string[] Patterns128 =
    [
        "212222",
        "222122",
        "222221",
        "121223",
        "121322",
        "131222",
        "122213",
        "122312",
        "132212",
        "221213",
        "221312",
        "231212",
        "112232",
        "122132",
        "122231",
        "113222",
        "123122",
        "123221",
        "223211",
        "221132",
        "221231",
        "213212",
        "223112",
        "312131",
        "311222",
        "321122",
        "321221",
        "312212",
        "322112",
        "322211",
        "212123",
        "212321",
        "232121",
        "111323",
        "131123",
        "131321",
        "112313",
        "132113",
        "132311",
        "211313",
        "231113",
        "231311",
        "112133",
        "112331",
        "132131",
        "113123",
        "113321",
        "133121",
        "313121",
        "211331",
        "231131",
        "213113",
        "213311",
        "213131",
        "311123",
        "311321",
        "331121",
        "312113",
        "312311",
        "332111",
        "314111",
        "221411",
        "431111",
        "111224",
        "111422",
        "121124",
        "121421",
        "141122",
        "141221",
        "112214",
        "112412",
        "122114",
        "122411",
        "142112",
        "142211",
        "241211",
        "221114",
        "413111",
        "241112",
        "134111",
        "111242",
        "121142",
        "121241",
        "114212",
        "124112",
        "124211",
        "411212",
        "421112",
        "421211",
        "212141",
        "214121",
        "412121",
        "111143",
        "111341",
        "131141",
        "114113",
        "114311",
        "411113",
        "411311",
        "113141",
        "114131",
        "311141",
        "411131",
        "211412",
        "211214",
        "211232",
    ];

    private const int ToC = 99;
    private const int ToB = 100;
    private const int StartB = 104;
    private const int StartC = 105;
    private const string Stop128 = "2331112";

    /// <summary>Why a text cannot be a bar code of a kind, as the end of a sentence about it; null where it can.</summary>
    public static string? Problem(BarCodeKind kind, string text) =>
        text.Length == 0 ? "is empty"
        : text.Length > Longest ? $"has {text.Length} characters; a bar code has {Longest} at most"
        : kind == BarCodeKind.Code39 && text.FirstOrDefault(c => c == '*' || !Characters39.Contains(c)) is var no39 and not '\0'
            ? $"has “{no39}”, which Code 39 has not"
        : kind == BarCodeKind.Code128 && text.FirstOrDefault(c => c is < ' ' or > '~') is var no128 and not '\0'
            ? $"has “{no128}”, which Code 128 has not"
        : null;

    /// <summary>
    /// The widths of bars and spaces in turn, from the first bar to the last, in modules. The edges that have to stay white, ten modules
    /// each, are not among them.
    /// </summary>
    /// <exception cref="ArgumentException">The text has a <see cref="Problem"/>.</exception>
    public IReadOnlyList<float> Widths() =>
        Problem(Kind, Text) is { } problem ? throw new ArgumentException($"“{Text}” {problem}.")
        : Kind == BarCodeKind.Code39 ? Widths39()
        : Widths128();

    private List<float> Widths39()
    {
        var widths = new List<float>();
        foreach (var character in $"*{Text}*")
        {
            if (widths.Count > 0)
            {
                widths.Add(1);
            }

            widths.AddRange(Patterns39[Characters39.IndexOf(character, StringComparison.Ordinal)].Select(w => w == 'w' ? Wide : 1));
        }

        return widths;
    }

    private List<float> Widths128()
    {
        var values = Values128();
        var check = (values[0] + values.Select((v, i) => v * i).Sum()) % 103;
        var pattern = new StringBuilder().AppendJoin("", values.Append(check).Select(v => Patterns128[v])).Append(Stop128);
        return [.. pattern.ToString().Select(w => (float)(w - '0'))];
    }

    /// <summary>
    /// The values of start, text and changes of set. Code set C, two digits in one, where it makes the code shorter: at least four digits
    /// at an end, six within.
    /// </summary>
    private List<int> Values128()
    {
        var values = new List<int>();
        var wasC = false;
        for (var i = 0; i < Text.Length; )
        {
            var digits = Text.Skip(i).TakeWhile(char.IsAsciiDigit).Count();
            var isC = digits >= (i == 0 || i + digits == Text.Length ? 4 : 6);
            if (i == 0)
            {
                values.Add(isC ? StartC : StartB);
            }
            else if (isC != wasC)
            {
                values.Add(isC ? ToC : ToB);
            }

            for (var end = i + (isC ? digits & ~1 : 1); i < end; i += isC ? 2 : 1)
            {
                values.Add(isC ? int.Parse(Text.AsSpan(i, 2), CultureInfo.InvariantCulture) : Text[i] - ' ');
            }

            wasC = isC;
        }

        return values;
    }
}
