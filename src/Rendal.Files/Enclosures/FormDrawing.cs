using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Rendal.Core.Budgets;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace Rendal.Files.Enclosures;

/// <summary>
/// Counts how often forms are drawn on the pages of a PDF (ISO 32000-1, 8.10), before they are: one that draws another twice, which draws
/// another twice, and so on, takes longer than anybody could wait, and the reader does not count.
/// </summary>
/// <param name="structure">The objects of the PDF.</param>
/// <param name="filters">What unpacks them.</param>
/// <param name="count">How many pages the reader finds in it.</param>
internal sealed partial class FormDrawing(Structure structure, BoundedFilters filters, int count)
{
    /// <summary>So many are drawn on one page at most.</summary>
    public const int Most = 100_000;

    // Of references to references, of nodes below each other, of forms in each other.
    private const int MostSteps = 20;
    private const int MostLevels = 60;

    private List<(DictionaryToken Page, DictionaryToken? Resources)>? pages;

    /// <summary>How many forms a page draws, those in forms included; <see cref="Most"/> and one where it is more or has no end.</summary>
    /// <param name="number">The page, from 1.</param>
    /// <exception cref="OverBudget">There is more on it than is worked through.</exception>
    public long On(int number)
    {
        pages ??= [.. Below(structure.Catalog.CatalogDictionary.Data.GetValueOrDefault(NameToken.Pages.Data), null, [], 0)];

        // Where the reader finds others than are found here, it is not known what it would draw.
        return pages.Count != count ? Most + 1 : Of(Content(pages[number - 1].Page), pages[number - 1].Resources, [], 0);
    }

    private string Content(DictionaryToken page)
    {
        var content = new StringBuilder();
        foreach (var stream in Streams(page))
        {
            content.Append(Text(stream)).Append('\n');
            filters.AtMost(content.Length);
        }

        return content.ToString();
    }

    private long Of(string content, DictionaryToken? resources, Dictionary<IndirectReference, long> known, int level)
    {
        if (level > MostLevels)
        {
            return Most + 1;
        }

        var drawn = 0L;
        foreach (var same in Draws().Matches(content).Select(m => Name(m.Groups[1].Value)).GroupBy(n => n, StringComparer.Ordinal))
        {
            drawn = Math.Min(Most + 1, drawn + (same.Count() * (1 + OfForm(same.Key, resources, known, level))));
        }

        return drawn;
    }

    private long OfForm(string name, DictionaryToken? resources, Dictionary<IndirectReference, long> known, int level)
    {
        if (
            In<DictionaryToken>(resources, NameToken.Xobject) is not { } objects
            || !objects.TryGet(NameToken.Create(name), out var token)
            || token is not IndirectReferenceToken { Data: var at }
            || Resolved(token) is not StreamToken form
            || In<NameToken>(form.StreamDictionary, NameToken.Subtype)?.Data != NameToken.Form.Data
        )
        {
            return 0;
        }

        if (!known.TryGetValue(at, out var drawn))
        {
            // One that is come upon again while it is gone through draws itself.
            known[at] = Most;
            known[at] = drawn = Of(
                Text(form),
                In<DictionaryToken>(form.StreamDictionary, NameToken.Resources) ?? resources,
                known,
                level + 1
            );
        }

        return drawn;
    }

    private string Text(StreamToken stream)
    {
        var data = stream.Data;
        filters.AtMost(data.Length);
        var unpacking = structure.FilterProvider.GetFilters(stream.StreamDictionary, structure.TokenScanner);
        for (var i = 0; i < unpacking.Count; i++)
        {
            data = unpacking[i].Decode(data, stream.StreamDictionary, structure.FilterProvider, i);
        }

        return Encoding.Latin1.GetString(data.Span);
    }

    private IEnumerable<StreamToken> Streams(DictionaryToken page) =>
        page.TryGet(NameToken.Contents, out var contents)
            ? Resolved(contents) switch
            {
                StreamToken one => [one],
                ArrayToken several => several.Data.Select(Resolved).OfType<StreamToken>(),
                _ => [],
            }
            : [];

    // A page without resources of its own has those of the node above it (ISO 32000-1, 7.7.3.4). A node that is below itself ends there.
    private IEnumerable<(DictionaryToken, DictionaryToken?)> Below(
        IToken? node,
        DictionaryToken? above,
        HashSet<IndirectReference> seen,
        int level
    )
    {
        if (
            level > MostLevels
            || (node is IndirectReferenceToken { Data: var at } && !seen.Add(at))
            || Resolved(node) is not DictionaryToken of
        )
        {
            return [];
        }

        var resources = In<DictionaryToken>(of, NameToken.Resources) ?? above;
        return In<ArrayToken>(of, NameToken.Kids) is { } kids
            ? kids.Data.SelectMany(kid => Below(kid, resources, seen, level + 1))
            : [(of, resources)];
    }

    private T? In<T>(DictionaryToken? dictionary, NameToken name)
        where T : class, IToken => dictionary is not null && dictionary.TryGet(name, out var token) ? Resolved(token) as T : null;

    private IToken? Resolved(IToken? token)
    {
        for (var i = 0; i < MostSteps && token is IndirectReferenceToken reference; i++)
        {
            token = structure.GetObject(reference.Data)?.Data;
        }

        return token;
    }

    private static string Name(string written) =>
        Escapes()
            .Replace(written, m => ((char)byte.Parse(m.Groups[1].Value, NumberStyles.HexNumber, CultureInfo.InvariantCulture)).ToString());

    [GeneratedRegex(@"/([^\s/<>\[\](){}%]+)(?:\s|%[^\r\n]*[\r\n])+Do(?![A-Za-z0-9])")]
    private static partial Regex Draws();

    [GeneratedRegex("#([0-9A-Fa-f]{2})")]
    private static partial Regex Escapes();
}
