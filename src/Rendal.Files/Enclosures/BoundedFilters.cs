using System.IO.Compression;
using Rendal.Core.Budgets;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokens;

namespace Rendal.Files.Enclosures;

/// <summary>
/// Unpacks the streams of a PDF as far as a budget goes: a few bytes can be packed so that they unpack to gigabytes. The reader passes
/// over what fails, so that it has to be asked afterwards whether that was the budget.
/// </summary>
/// <param name="budget">What unpacking may take.</param>
internal sealed class BoundedFilters(Budget budget) : IFilterProvider
{
    // What these make of a byte (ISO 32000-1, 7.4.4 and 7.4.5): a run of 128 of two, and of LZW a few, where nobody made it to be large;
    // then it may be five times this.
    private const int MostOfRunLength = 64;
    private const int MostOfLzw = 250;

    private OverBudget? over;
    private int nodes;

    /// <inheritdoc/>
    public IReadOnlyList<IFilter> GetFilters(DictionaryToken dictionary) =>
        [.. DefaultFilterProvider.Instance.GetFilters(dictionary).Select(Bounded)];

    /// <inheritdoc/>
    public IReadOnlyList<IFilter> GetNamedFilters(IReadOnlyList<NameToken> names) =>
        [.. DefaultFilterProvider.Instance.GetNamedFilters(names).Select(Bounded)];

    /// <inheritdoc/>
    public IReadOnlyList<IFilter> GetAllFilters() => [.. DefaultFilterProvider.Instance.GetAllFilters().Select(Bounded)];

    /// <summary>Whether what was unpacked has more nodes of pages than are gone down.</summary>
    public bool IsTooDeep => nodes > PageNodes.Most;

    /// <summary>Counts bytes that are worked through without having been packed.</summary>
    /// <param name="bytes">How many there are together.</param>
    /// <exception cref="OverBudget">They are too many.</exception>
    public void AtMost(long bytes) => Within(() => budget.AtMost(Cost.Bytes, bytes));

    /// <summary>Refuses the file where the budget was spent on the way, whatever came of it.</summary>
    /// <exception cref="FileRefused">It was; the message says by what.</exception>
    public void Demand()
    {
        if (over is not null)
        {
            throw new FileRefused(over.Message, over);
        }
    }

    private IFilter Bounded(IFilter filter) => new Filter(this, filter);

    private void Within(Action work)
    {
        try
        {
            if (over is not null)
            {
                throw over;
            }

            work();
        }
        catch (OverBudget e)
        {
            over = e;
            throw;
        }
    }

    private void DemandRoom(IFilter filter, Memory<byte> packed)
    {
        budget.Continue();
        budget.AtMost(
            Cost.Bytes,
            filter switch
            {
                FlateFilter => Unpacked(packed),
                LzwFilter => (long)packed.Length * MostOfLzw,
                RunLengthFilter => (long)packed.Length * MostOfRunLength,
                _ => packed.Length,
            }
        );
    }

    /// <summary>How many bytes come out, counted up to a little more than there may be, without keeping them.</summary>
    private long Unpacked(Memory<byte> packed)
    {
        using var stream = new ZLibStream(new MemoryStream(packed.ToArray()), CompressionMode.Decompress);
        var buffer = new byte[1 << 16];
        var count = 0L;
        try
        {
            for (int read; (read = stream.Read(buffer)) > 0; )
            {
                count += read;
                budget.AtMost(Cost.Bytes, count);
            }
        }
        catch (InvalidDataException)
        {
            // What is damaged further on is read up to there.
        }

        return count;
    }

    private sealed class Filter(BoundedFilters of, IFilter inner) : IFilter
    {
        public bool IsSupported => inner.IsSupported;

        public Memory<byte> Decode(Memory<byte> input, DictionaryToken streamDictionary, IFilterProvider filterProvider, int filterIndex)
        {
            of.Within(() => of.DemandRoom(inner, input));
            var unpacked = inner.Decode(input, streamDictionary, filterProvider, filterIndex);
            of.nodes += PageNodes.In(unpacked.Span);
            return of.IsTooDeep ? throw new InvalidDataException("There are more nodes of pages than are gone down.") : unpacked;
        }
    }
}
